/** What is reckoned about food and no verdict: forecasts, ways of cooling, lethality, what is odd about an entry. Apart, because the first screen needs none of it. */
export * from './safety/coolingForecast';
export * from './safety/coolingWays';
export * from './safety/coolingRate';
export * from './safety/lethality';
export * from './safety/plausible';
export * from './day/record';
