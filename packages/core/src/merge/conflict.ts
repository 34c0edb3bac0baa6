/** Something that only a person can decide. The merged project has it as ours does. */
export interface Conflict {
  /** In words, from the outside in: `clips, walk, playback`. */
  readonly where: string;
  readonly message: string;
}
