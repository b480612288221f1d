export { BoardScreen as default } from '../src/features/board/BoardScreen';
