/** Hands are shared out in quarters of a cook: chopping takes three, a hot transfer or a wash all four, a stir now and then one. Common practice. */
export const HANDS_ID = 'hands';
export const UNITS_PER_PERSON = 4;
