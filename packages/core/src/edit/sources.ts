import { CaravanError, checkedName, counted, type SourceId, sourceById } from "../model";
import { t } from "../words";
import { loopFromAmong } from "./clips";
import { edit } from "./edit";
import { withSource } from "./with-source";

/** Throws `name-taken` if another source has the name. */
export const renameSource = edit(
  (project, id: SourceId, name: string) => t("rename {from} to {to}", { from: sourceById(project, id).name, to: name.trim() }),
  (project, id, wanted) => {
    const name = checkedName(wanted, t("source name"));
    const source = sourceById(project, id);
    if (source.name === name) return project;
    if (project.sources.some((each) => each.name === name))
      throw new CaravanError(
        "name-taken",
        t('source "{name}"', { name }),
        t("There is already a source of this name."),
        t("Choose another name."),
      );
    return withSource(project, { ...source, name });
  },
);

/** Removes a source, and from clips the steps that show its frames. */
export const removeSource = edit(
  (project, id: SourceId) => {
    const steps = project.clips.reduce((sum, clip) => sum + clip.steps.filter((step) => step.frame.startsWith(`${id}/`)).length, 0);
    return steps > 0
      ? t("remove {name} and {steps}", { name: sourceById(project, id).name, steps: counted(steps, "step") })
      : t("remove {name}", { name: sourceById(project, id).name });
  },
  (project, id) => ({
    ...project,
    sources: project.sources.filter((source) => source.id !== sourceById(project, id).id),
    clips: project.clips.map((clip) => {
      const steps = clip.steps.filter((step) => !step.frame.startsWith(`${id}/`));
      return steps.length === clip.steps.length ? clip : { ...clip, steps, loopFrom: loopFromAmong(clip, steps) };
    }),
  }),
);
