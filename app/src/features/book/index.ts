/** All of the book is one piece that is fetched when it is first opened. */
export { BatchSheetScreen } from './BatchSheetScreen';
export { BookScreen } from './BookScreen';
export { EditScreen } from './EditScreen';
export { FreeSheetScreen } from './FreeSheetScreen';
export { NewScreen } from './NewScreen';
export { PantryScreen } from './PantryScreen';
export { PrepScreen } from './PrepScreen';
export { SoupScreen } from './SoupScreen';
