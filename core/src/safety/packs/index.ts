import type { Rule, RulePack } from '../rule';
import { australia, newZealand } from './australasia';
import { canada } from './canada';
import { codex } from './codex';
import { france, germany, ireland } from './europe';
import { cookChill, scotland, unitedKingdom } from './unitedKingdom';
import { california, foodCode2022, newYorkCity, newYorkState } from './unitedStates';

/** A pack that changes another: what it has of a kind (a step of a food) stands instead of all the other has of it. */
function instead(base: readonly Rule[], own: readonly Rule[]): readonly Rule[] {
  const kind = (rule: Rule): string => (rule.step === 'text' ? rule.id : `${rule.step} ${'food' in rule ? rule.food : ''}`);
  const kinds = new Set(own.map(kind));
  return [...base.filter((rule) => !kinds.has(kind(rule))), ...own];
}

/** Every pack that ships. A change of any number in one is a new version of it. */
export const RULE_PACKS: readonly RulePack[] = [
  { id: 'us-fda-fc2022', version: 2, name: 'FDA Food Code 2022', place: 'United States', rules: foodCode2022 },
  { id: 'us-nyc', version: 1, name: 'New York City Health Code over the FDA Food Code 2022', place: 'New York City', rules: instead(foodCode2022, newYorkCity) },
  { id: 'us-nys', version: 1, name: 'New York State code over the FDA Food Code 2022', place: 'New York State', rules: instead(foodCode2022, newYorkState) },
  { id: 'us-ca', version: 1, name: 'California code over the FDA Food Code 2022', place: 'California', rules: instead(foodCode2022, california) },
  { id: 'uk', version: 1, name: 'Food hygiene regulations and FSA guidance', place: 'England, Wales, Northern Ireland', rules: unitedKingdom },
  { id: 'uk-scotland', version: 1, name: 'Food hygiene regulations (Scotland) and guidance', place: 'Scotland', rules: instead(unitedKingdom, scotland) },
  { id: 'uk-cook-chill', version: 1, name: 'Cook-chill guideline 1989', place: 'United Kingdom', rules: instead(unitedKingdom, cookChill) },
  { id: 'au', version: 1, name: 'Food Standards Code 3.2.2', place: 'Australia', rules: australia },
  { id: 'nz', version: 1, name: 'Template food control plan', place: 'New Zealand', rules: newZealand },
  { id: 'canada', version: 1, name: 'Food Retail and Food Services Code', place: 'Canada', rules: canada },
  { id: 'codex', version: 1, name: 'Codex CXC 39-1993', place: 'International', rules: codex },
  { id: 'ie', version: 1, name: 'EU hygiene regulation and FSAI guidance', place: 'Ireland', rules: ireland },
  { id: 'de', version: 1, name: 'EU hygiene regulation, DIN 10506 and 10508', place: 'Germany', rules: germany },
  { id: 'fr', version: 1, name: 'EU hygiene regulation and decree of 21 December 2009', place: 'France', rules: france },
];

/** The pack a kitchen begins with. */
export const DEFAULT_PACK = 'us-fda-fc2022';
