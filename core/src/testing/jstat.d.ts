/** What the checks use of jStat, which comes without types. */
declare module 'jstat' {
  interface Distribution {
    readonly cdf: (x: number, ...parameters: number[]) => number;
    readonly inv: (share: number, ...parameters: number[]) => number;
  }
  export const jStat: { readonly normal: Distribution; readonly triangular: Distribution };
}
