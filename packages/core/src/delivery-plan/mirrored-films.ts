/** Lists films of facings that mirror another facing's clip. */
import { withFacingInName } from "../facing";
import { type Facing, freeName } from "../model";

export interface MirroredFilm {
  /** Its name: the clip's with the facing's name replacing its own, or else the action's and the facing's. */
  readonly name: string;
  readonly clip: string;
}

interface Rose {
  readonly name: string;
  readonly facings: Readonly<Partial<Record<Facing, { readonly clip: string; readonly mirror?: boolean | undefined }>>>;
}

/** One for each clip that some facing mirrors, in the order of the actions. `clips` are the names of the films that there are anyway. */
export function mirroredFilms(actions: readonly Rose[], clips: readonly string[]): MirroredFilm[] {
  const taken = new Set(clips);
  const done = new Set<string>();
  return actions.flatMap(({ name, facings }) =>
    Object.entries(facings).flatMap(([facing, petal]): MirroredFilm[] => {
      if (!petal?.mirror || done.has(petal.clip) || !clips.includes(petal.clip)) return [];
      done.add(petal.clip);
      const film = freeName(withFacingInName(petal.clip, facing as Facing) ?? `${name}-${facing}`, taken);
      taken.add(film);
      return [{ name: film, clip: petal.clip }];
    }),
  );
}
