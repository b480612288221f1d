/** How a kitchen's own things are called. */
export interface Names {
  readonly soup: (id: string) => string;
  readonly step: (soupId: string, stepId: string) => string;
  readonly batch: (id: string) => string;
  /** Equipment, hands, or a batch that was waited for. */
  readonly resource: (id: string) => string;
  readonly service: (id: string) => string;
}
