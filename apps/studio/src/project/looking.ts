/** What findings are looked for with: much code, which comes after the first picture. */
import "./seen-outlines";
import "./seen-walks";

export { lookingFor } from "@caravan/core/check";
