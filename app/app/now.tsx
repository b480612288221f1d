export { NowScreen as default } from '../src/features/now/NowScreen';
