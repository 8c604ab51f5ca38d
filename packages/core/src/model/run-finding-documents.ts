/** From when on what happens in a run is a finding: how often, and how many seconds. */
export interface RunFindingLimits {
  flickers: number;
  flickerWithin: number;
  crowds: number;
  crowdsFor: number;
  jitters: number;
  jittersWithin: number;
  ties: number;
  tiesWithin: number;
  taken: number;
  takenWithin: number;
  starvedFor: number;
  goneFor: number;
  fires: number;
  waitsFor: number;
  oldFor: number;
}

export type RunFindingsDocument = Partial<RunFindingLimits>;
