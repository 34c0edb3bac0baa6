/** Guesses the roles of a character's actions from their names and playback, for a person to confirm. */
import type { Clip, Project } from "../model";
import { clipsOfAction, facingsPresent } from "../model";

export interface Roles {
  readonly stand: string | null;
  readonly move: string | null;
  readonly jump: string | null;
  readonly fall: string | null;
  /** What plays when a key is pressed. */
  readonly acts: readonly string[];
}

/** An action or a clip on its own that a behaviour can play. */
export interface Playable {
  readonly name: string;
  readonly clips: readonly Clip[];
  readonly facings: number;
  /** Whether it can be seen from more than its two sides. */
  readonly goesRound: boolean;
}

/** Everything that can be played: actions, and clips that no action shows. */
export function playables(project: Project): Playable[] {
  const inActions = new Set(project.actions.flatMap(({ facings }) => Object.values(facings).map(({ clip }) => clip)));
  const actions = project.actions.flatMap((action): Playable[] => {
    const clips = clipsOfAction(project, action).filter(({ steps }) => steps.length > 0);
    const present = facingsPresent(action);
    return clips.length === 0
      ? []
      : [
          {
            name: action.name,
            clips,
            facings: present.length,
            goesRound: present.some((each) => each !== "e" && each !== "w") && action.ways > 1,
          },
        ];
  });
  const clips = project.clips.filter(({ name, steps }) => !inActions.has(name) && steps.length > 0);
  return [...actions, ...clips.map((clip): Playable => ({ name: clip.name, clips: [clip], facings: 1, goesRound: false }))];
}

/** Beginnings of words, in the languages in which art is mostly named. Longer words that begin so count too. */
const WORDS = {
  stand:
    "idle stand still wait rest breath ruh steh wart pose repos attente debout quiet parad esper reposo fermo ferma attes repous czeka stoi 待機 立ち 정지",
  move: "walk run move go gait stride step jog march lauf geh renn schritt marche cour avance camina corr anda mover passo cammina corre chod bieg 歩 走 걷",
  jump: "jump leap hop spring sprung saut salta salto skok 跳 ジャンプ 점프",
  fall: "fall drop descend land stürz sturz chute tomb cae caida cad spad 落 낙하",
} as const;

function wordsIn(name: string): string[] {
  return name
    .replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2")
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter((word) => word !== "");
}

function isCalled(name: string, role: keyof typeof WORDS): boolean {
  const beginnings = WORDS[role].split(" ");
  return wordsIn(name).some((word) => beginnings.some((each) => word.startsWith(each)));
}

/**
 * The likeliest role of each. Names decide; otherwise, what loops with the most steps moves, what loops most slowly stands, and what plays
 * once is an act. Nothing gets two roles.
 */
export function guessedRoles(project: Project): Roles {
  const all = playables(project);
  const most = Math.max(0, ...all.map(({ facings }) => facings));
  // A character's main actions have its facings; props have one.
  const fullest = all.filter(({ facings }) => facings === most);
  const taken = new Set<string>();
  const take = (found: Playable | undefined): string | null => {
    if (found) taken.add(found.name);
    return found?.name ?? null;
  };
  const called = (role: keyof typeof WORDS): Playable | undefined =>
    [...fullest, ...all].find(({ name }) => !taken.has(name) && isCalled(name, role));
  const free = () => (fullest.length > 1 ? fullest : all).filter(({ name }) => !taken.has(name));
  const loops = ({ clips }: Playable) => clips.every(({ playback, times }) => playback !== "once" && times === 0);
  const stepsOf = ({ clips }: Playable) => Math.max(...clips.map(({ steps }) => steps.length));
  const paceOf = ({ clips: [clip] }: Playable) =>
    clip ? clip.steps.reduce((sum, { duration }) => sum + duration, 0) / clip.steps.length : 0;
  const named = { stand: take(called("stand")), move: take(called("move")), jump: take(called("jump")), fall: take(called("fall")) };
  const move =
    named.move ??
    take(
      free()
        .filter(loops)
        .sort((a, b) => stepsOf(b) - stepsOf(a))[0],
    );
  const stand =
    named.stand ??
    take(
      free()
        .filter(loops)
        .sort((a, b) => paceOf(b) - paceOf(a))[0],
    );
  const acts = all.filter((each) => !taken.has(each.name) && !loops(each)).map(({ name }) => name);
  return { ...named, move, stand, acts: acts.slice(0, MOST_ACTS) };
}

/** As many as there are keys near each other. */
const MOST_ACTS = 4;
