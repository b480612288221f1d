export { ParScreen as default } from '../src/features/par/ParScreen';
