export * from './ingredientLine';
export * from './card';
export * from './recipeJsonLd';
export * from './problem';
