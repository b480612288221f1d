import { lazily } from '../../src/ui/lazily';

export default lazily(() => import('../../src/features/later').then((part) => part.InspectScreen));
