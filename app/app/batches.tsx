export { BatchesScreen as default } from '../src/features/batches/BatchesScreen';
