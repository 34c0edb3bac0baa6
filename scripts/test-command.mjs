// Before any unit or browser test: builds the command that some of them start.
import { buildCommand } from "./build-command.mjs";

export default () => buildCommand();
