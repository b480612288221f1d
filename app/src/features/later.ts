/** Everything behind the five places is one piece, fetched when any of it is first opened: two pieces would share a third, which the first load would pay for. */
export { BatchSheetScreen } from './book/BatchSheetScreen';
export { BookScreen } from './book/BookScreen';
export { EditScreen } from './book/EditScreen';
export { FreeSheetScreen } from './book/FreeSheetScreen';
export { NewScreen } from './book/NewScreen';
export { PantryScreen } from './book/PantryScreen';
export { PrepScreen } from './book/PrepScreen';
export { SoupScreen } from './book/SoupScreen';
export { HappenedScreen } from './happened/HappenedScreen';
export { SalesScreen } from './sales/SalesScreen';
