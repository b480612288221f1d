export { KitchenScreen as default } from '../src/features/kitchen/KitchenScreen';
