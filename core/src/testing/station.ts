import type { Station } from '../batch/index';

/** A station for a test: nobody and nothing there but what is given, common washes, ready twenty minutes before a service, on the dot. */
export function stationWith(some: Partial<Station> = {}): Station {
  return {
    equipment: [],
    people: [],
    services: [],
    rinseMin: 5,
    fullWashMin: 12,
    readyLeadMin: 20,
    aimChance: null,
    laterBatches: false,
    altitudeM: 0,
    thermometers: [],
    ...some,
  };
}
