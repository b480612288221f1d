export { BatchLogScreen as default } from '../../src/features/log/BatchLogScreen';
