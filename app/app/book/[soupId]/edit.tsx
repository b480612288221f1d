import { lazily } from '../../../src/ui/lazily';

export default lazily(() => import('../../../src/features/book').then((part) => part.EditScreen));
