/**
 * For every text field: what is typed is meant letter by letter, as names that a game asks for are. A tablet's keyboard would make `Walk` of
 * `walk`, and a dash of two hyphens.
 */
export const AS_TYPED = { autoComplete: "off", autoCapitalize: "none", autoCorrect: "off", spellCheck: false } as const;
