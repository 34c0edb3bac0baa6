/** Findings about stages and drives that refer to what no longer exists: a game would not notice, a rehearsal shows less without a word. */
import { removeDrive, type StageChange, setStage } from "../edit";
import type { Drive, Project, Stage } from "../model";
import { t } from "../words";
import type { Finding } from "./finding";

/** Cost: O(things on stages + drives). */
export function stageReferences(project: Project): Finding[] {
  const { stages = [], drives = [] } = project;
  return [...stages.flatMap((stage) => goneOnStage(project, stage)), ...drives.flatMap((drive) => goneOfDrive(project, drive))];
}

/** Something that is gone, in words, and the stage without it. */
interface Gone {
  readonly what: string;
  readonly without: StageChange;
}

/** Names that a message lists. */
const NAMED = 3;

function goneOnStage(project: Project, stage: Stage): Finding[] {
  const behaviours = project.behaviours ?? [];
  const about = { severity: "warning", where: t('stage "{name}"', { name: stage.name }) } as const;
  const place = { stop: "rehearse", behaviour: stage.behaviour, stage: stage.name } as const;
  const [only, ...others] = behaviours;
  if (!behaviours.some(({ name }) => name === stage.behaviour))
    return [
      {
        ...about,
        code: "stage-names-nothing",
        message: t(
          "Its behaviour {name} no longer exists, so nothing can be rehearsed on it. Choose another one under Stage, or remove the stage.",
          {
            name: stage.behaviour,
          },
        ),
        place,
        ...(only && others.length === 0
          ? { mend: { label: t("Use {name}", { name: only.name }), apply: (now) => setStage(now, stage.name, { behaviour: only.name }) } }
          : {}),
      },
    ];
  const gone = goneFrom(project, stage);
  if (gone.length === 0) return [];
  const named = gone.slice(0, NAMED).map(({ what }) => what);
  const listed = named.join(", ");
  return [
    {
      ...about,
      code: "stage-names-nothing",
      message:
        gone.length > NAMED
          ? t("It uses what no longer exists: {listed} and {more} more.", { listed, more: gone.length - NAMED })
          : t("It uses what no longer exists: {listed}.", { listed }),
      place,
      mend: {
        label: t("Take it off the stage"),
        // One at a time: two may be in the same list.
        apply: (now) => {
          for (let left = now; ; ) {
            const current = left.stages?.find(({ name }) => name === stage.name);
            const [first] = current ? goneFrom(left, current) : [];
            if (!first) return left;
            left = setStage(left, stage.name, first.without);
          }
        },
      },
    },
  ];
}

function goneFrom(project: Project, stage: Stage): Gone[] {
  const inputs = project.behaviours?.find(({ name }) => name === stage.behaviour)?.inputs.map(({ name }) => name) ?? [];
  return [...playsGone(project, stage), ...marksGone(project, stage), ...inputsGone(stage, inputs)];
}

/** Effects and others on the stage whose clip or action is gone, and zones whose effect is. */
function playsGone({ clips, actions }: Project, { effects, extras, zones }: Stage): Gone[] {
  const there = new Set<string>([...clips, ...actions].map(({ name }) => name));
  return [
    ...effects
      .filter(({ play }) => !there.has(play))
      .map((one) => ({
        what: t("{play} of the effect {name}", { play: one.play, name: one.name }),
        without: { effects: effects.filter((each) => each !== one) },
      })),
    ...extras
      .filter(({ play }) => !there.has(play))
      .map((one) => ({ what: t("{play} that {name} plays", one), without: { extras: extras.filter((each) => each !== one) } })),
    ...zones.flatMap((one) => {
      const { effect, ...rest } = one;
      if (effect === undefined || effects.some(({ name }) => name === effect)) return [];
      return [
        { what: t("the effect {effect} of the zone {name}", { effect, name: one.name }), without: { zones: swapped(zones, one, rest) } },
      ];
    }),
  ];
}

/** Boxes that collide, points where effects start, and what counts as a hit. */
function marksGone({ marks }: Project, { body, effects, hits }: Stage): Gone[] {
  const there = new Set<string>(marks.map(({ name }) => name));
  return [
    ...(body !== null && !there.has(body) ? [{ what: t("the marks {name}", { name: body }), without: { body: null } }] : []),
    ...effects.flatMap((one): Gone[] => {
      const { point, ...rest } = one;
      if (point === undefined || there.has(point)) return [];
      return [
        { what: t("the point {point} of the effect {name}", { point, name: one.name }), without: { effects: swapped(effects, one, rest) } },
      ];
    }),
    ...hits.flatMap((pair): Gone[] => {
      const name = [pair.ours, pair.theirs].find((each) => !there.has(each));
      return name === undefined ? [] : [{ what: t("the marks {name}", { name }), without: { hits: hits.filter((each) => each !== pair) } }];
    }),
  ];
}

/** Inputs that keys press, the movement feeds, and zones and hits set. */
function inputsGone({ keys, feeds, zones, hits }: Stage, inputs: readonly string[]): Gone[] {
  const isGone = (input: string | undefined): input is string => input !== undefined && !inputs.includes(input);
  const what = (input: string) => t("the input {input}", { input });
  return [
    ...keys.flatMap((key): Gone[] =>
      "input" in key && isGone(key.input) ? [{ what: what(key.input), without: { keys: keys.filter((each) => each !== key) } }] : [],
    ),
    ...Object.entries(feeds).flatMap(([fed, input]): Gone[] =>
      isGone(input)
        ? [{ what: what(input), without: { feeds: Object.fromEntries(Object.entries(feeds).filter(([each]) => each !== fed)) } }]
        : [],
    ),
    ...zones.flatMap((one): Gone[] => {
      const { input, ...rest } = one;
      return isGone(input) ? [{ what: what(input), without: { zones: swapped(zones, one, rest) } }] : [];
    }),
    ...hits.flatMap((pair): Gone[] => {
      const { input, ...rest } = pair;
      return isGone(input) ? [{ what: what(input), without: { hits: swapped(hits, pair, rest) } }] : [];
    }),
  ];
}

function swapped<Each>(list: readonly Each[], one: Each, other: Each): Each[] {
  return list.map((each) => (each === one ? other : each));
}

function goneOfDrive({ behaviours = [], stages = [] }: Project, { name, behaviour, stage }: Drive): Finding[] {
  const noBehaviour = !behaviours.some((each) => each.name === behaviour);
  if (!noBehaviour && stages.some((each) => each.name === stage)) return [];
  return [
    {
      code: "drive-names-nothing",
      severity: "warning",
      where: t('drive "{name}"', { name }),
      message: noBehaviour
        ? t("The behaviour {behaviour} no longer exists, so it cannot be played again.", { behaviour })
        : t("The stage {stage} no longer exists, so it cannot be played again.", { stage }),
      place: { stop: "rehearse", behaviour },
      mend: { label: t("Remove the drive"), apply: (now) => removeDrive(now, name) },
    },
  ];
}
