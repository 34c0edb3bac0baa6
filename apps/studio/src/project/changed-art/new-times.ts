/** An animation that comes again with the same pictures and other times: clips follow, and there is nothing to be looked at. */
import { type ChangedPicture, type ClipNews, refreshSource, withAnimationFollowed } from "@caravan/core/edit";
import type { Project, Source, SourceId } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import type { Begun } from "../begun";
import { newsInWords, sayClipNews } from "../clip-news";

/** Uses the times of pictures that the source has already, and says what that did to clips. Throws what the edit throws. */
export function takeNewTimes(work: Begun, { id }: Source, pictures: readonly ChangedPicture[], file: string): void {
  const news = newsOf(work.project, id, pictures);
  const error = work.edit(refreshSource, id, pictures, []);
  if (error) throw error;
  if (isOfNoClip(news)) say({ tone: "trouble", text: noClipInWords(file) });
  else sayClipNews(news, { name: file, kind: "animation" });
}

/** What `takeNewTimes` would do, in words. */
export function newTimesInWords(project: Project, { id }: Source, pictures: readonly ChangedPicture[], file: string): string {
  const news = newsOf(project, id, pictures);
  return isOfNoClip(news) ? noClipInWords(file) : newsInWords(news, { name: file, kind: "animation" }).sentences.join(" ");
}

function newsOf(project: Project, id: SourceId, pictures: readonly ChangedPicture[]): ClipNews {
  return withAnimationFollowed(project, refreshSource(project, id, pictures, []), id, pictures).news;
}

function isOfNoClip({ changed, kept }: ClipNews): boolean {
  return changed.length + kept.length === 0;
}

function noClipInWords(file: string): string {
  return t("No clip follows {file}: its new times change nothing.", { file });
}
