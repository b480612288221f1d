export { LogScreen as default } from '../../src/features/log/LogScreen';
