/** Starts the search for findings. It needs much code, which loads after the first picture. */
import "./seen-outlines";
import "./seen-walks";

export { lookingFor } from "@caravan/core/check";
