/** Enamel (light) and iron (dark). Every pair of text and ground below is at least 4.5 : 1. */
export interface Palette {
  readonly ground: string;
  readonly sheet: string;
  /** The lip of an enamel pot: along the top of every sheet. */
  readonly rim: string;
  readonly ink: string;
  readonly muted: string;
  readonly hairline: string;
  readonly action: string;
  readonly onAction: string;
  readonly accent: string;
  readonly rail: string;
  readonly onRail: string;
  readonly fine: string;
  readonly soon: string;
  readonly stop: string;
  readonly onState: string;
  readonly key: string;
  readonly steel: string;
}

export const enamel: Palette = {
  ground: '#F6F0E4',
  sheet: '#FFFDF6',
  rim: '#22335B',
  ink: '#1B2133',
  muted: '#585D6B',
  hairline: '#D9D0BD',
  action: '#22335B',
  onAction: '#FFFDF6',
  accent: '#E2AE3B',
  rail: '#22335B',
  onRail: '#F6F0E4',
  fine: '#2C6643',
  soon: '#8A5200',
  stop: '#A0222C',
  onState: '#FFFDF6',
  key: '#FFFDF6',
  steel: '#C7CEDC',
};

export const iron: Palette = {
  ground: '#15171C',
  sheet: '#21242C',
  rim: '#8FA6DB',
  ink: '#F1EADB',
  muted: '#B6B2A6',
  hairline: '#3B3F4A',
  action: '#9DB3E6',
  onAction: '#15171C',
  accent: '#E2AE3B',
  rail: '#0F1115',
  onRail: '#F1EADB',
  fine: '#7CC79A',
  soon: '#E8B45C',
  stop: '#FF8F8F',
  onState: '#15171C',
  key: '#2B2F39',
  steel: '#3C465E',
};
