"use client";

/**
 * Key bindings: each screen registers its own while it is shown, one listener finds the binding for a key press, and the keys panel lists
 * them all.
 */
import { useEffect, useRef } from "react";
import { create } from "zustand";

export interface Binding {
  /** As `Mod+Shift+z`, `Space`, `ArrowLeft`, `c`; Mod is Ctrl, or Command on a Mac. Several ways are parted by a blank. */
  readonly keys: string;
  readonly label: string;
  /** Runs it; returning false passes the key on, also to the browser. */
  readonly run: (event: KeyboardEvent) => unknown;
  /** When the key goes up, or the window loses it. */
  readonly release?: () => void;
  /** Whether it works while something is being typed, too. */
  readonly whileTyping?: boolean;
  /** Whether it is done again and again while the key is held down. */
  readonly repeats?: boolean;
}

/**
 * The scope of keys, the first asked first: overlays such as drawers; the surface under the pointer; the stop; the whole studio. Dialogs,
 * menus and text fields come before all of these and keep their keys.
 */
const SCOPES = ["layer", "surface", "stop", "everywhere"] as const;
export type Scope = (typeof SCOPES)[number];

export interface KeyGroup {
  readonly title: string;
  readonly scope: Scope;
  readonly bindings: readonly Binding[];
}

const useGroups = create<{ readonly groups: readonly KeyGroup[] }>(() => ({ groups: [] }));

/** As keys ask them: scope by scope, within one the group that came last first. */
export function inOrder(groups: readonly KeyGroup[]): KeyGroup[] {
  const latest = groups.toReversed();
  return SCOPES.flatMap((scope) => latest.filter((group) => group.scope === scope));
}

export function useKeyGroups(): readonly KeyGroup[] {
  return useGroups((state) => state.groups);
}

/** Registers keys while the component is shown. Within a scope the latest group is asked first. */
export function useKeys(title: string, bindings: readonly Binding[], { scope = "stop" }: { readonly scope?: Scope } = {}): void {
  const latest = useRef(bindings);
  latest.current = bindings;
  const described = bindings
    .map(({ keys, label, whileTyping, repeats }) => `${keys}\t${label}\t${whileTyping ? "typing" : ""}\t${repeats ? "repeats" : ""}`)
    .join("\n");
  useEffect(() => {
    if (described === "") return;
    const group: KeyGroup = {
      title,
      scope,
      bindings: described.split("\n").map((line, k) => {
        const [keys, label, typing, repeats] = line.split("\t") as [string, string, string, string];
        return {
          keys,
          label,
          whileTyping: typing !== "",
          repeats: repeats !== "",
          run: (event) => latest.current[k]?.run(event),
          release: () => latest.current[k]?.release?.(),
        };
      }),
    };
    useGroups.setState(({ groups }) => ({ groups: [...groups, group] }));
    return () => useGroups.setState(({ groups }) => ({ groups: groups.filter((each) => each !== group) }));
  }, [title, described, scope]);
}

/** Keys that came while the screen they are meant for was still being made, and clicks that came after them. */
const waiting: (KeyboardEvent | MouseEvent)[] = [];
let changing: () => boolean = () => false;

/**
 * Keys pressed while `isChanging()` belong to the next screen: they wait, in order, until it calls `giveHeldKeys`. So a screen can be
 * rendered in pieces without blocking, and nothing typed meanwhile is lost.
 */
export function holdKeysWhile(isChanging: () => boolean): void {
  changing = isChanging;
}

/**
 * Passes the held keys to the current focus as if pressed now: one per turn of the event loop, so that each sees the effect of the previous
 * one. If one of them opens yet another screen, the rest waits for that.
 */
export function giveHeldKeys(): void {
  if (changing() || waiting.length === 0) return;
  setTimeout(() => {
    if (changing()) return;
    const held = waiting.shift();
    if (held instanceof KeyboardEvent) pressAgain(held);
    else if (held) held.target?.dispatchEvent(new MouseEvent("click", held));
    giveHeldKeys();
  });
}

function pressAgain({ key, code, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): void {
  const target = document.activeElement ?? document.body;
  const again = new KeyboardEvent("keydown", { key, code, ctrlKey, metaKey, altKey, shiftKey, bubbles: true, cancelable: true });
  const free = target.dispatchEvent(again);
  // A made event types nothing; this does, and fields hear of it as of a typed letter.
  if (free && isTyping(target) && key.length === 1 && !ctrlKey && !metaKey) document.execCommand("insertText", false, key);
}

/** Listens at the window; to be used once. */
export function useKeyListener(): void {
  useEffect(() => {
    // While characters are composed, as in Japanese or Chinese, Enter and Escape are for the composition and not for the field.
    const compose = (event: KeyboardEvent) => event.isComposing && event.stopImmediatePropagation();
    addEventListener("keydown", compose, { capture: true });
    return () => removeEventListener("keydown", compose, { capture: true });
  }, []);
  useEffect(() => {
    const hold = (event: KeyboardEvent) => {
      if (!event.isTrusted || isInOverlay(event.target)) return;
      if (!changing() && waiting.length === 0) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      waiting.push(event);
    };
    // A click while keys wait is meant to follow them: it may lead to where they would mean something else.
    const holdClick = (event: MouseEvent) => {
      if (!event.isTrusted || waiting.length === 0) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      if (event.type === "click") waiting.push(event);
    };
    addEventListener("keydown", hold, { capture: true });
    // Pressing the button would take the focus away from the target of the keys.
    addEventListener("mousedown", holdClick, { capture: true });
    addEventListener("click", holdClick, { capture: true });
    return () => {
      removeEventListener("keydown", hold, { capture: true });
      removeEventListener("mousedown", holdClick, { capture: true });
      removeEventListener("click", holdClick, { capture: true });
    };
  }, []);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isInOverlay(event.target)) return;
      const typing = isTyping(event.target) && !(isClosedList(event.target) && (event.ctrlKey || event.metaKey));
      if (isOnSlider(event.target) && SLIDER_KEYS.has(event.key)) return;
      if ((event.key === " " || event.key === "Enter") && isControl(event.target)) return;
      const asked = inOrder(useGroups.getState().groups).flatMap(({ bindings }) => bindings);
      // The printed character decides; if it means nothing here, the physical key does.
      for (const pressed of new Set([chordOf(event), placeChordOf(event)]))
        for (const binding of asked)
          if (pressed !== null && binding.keys.split(" ").includes(pressed) && (!typing || binding.whileTyping)) {
            if (event.repeat && !binding.repeats) event.preventDefault();
            else if (binding.run(event) === false) continue;
            else {
              event.preventDefault();
              down.set(event.code, binding);
            }
            return;
          }
    };
    const down = new Map<string, Binding>();
    const up = ({ code }: KeyboardEvent) => {
      down.get(code)?.release?.();
      down.delete(code);
    };
    const allUp = () => {
      for (const binding of down.values()) binding.release?.();
      down.clear();
    };
    addEventListener("keydown", listen);
    addEventListener("keyup", up);
    addEventListener("blur", allUp);
    return () => {
      removeEventListener("keydown", listen);
      removeEventListener("keyup", up);
      removeEventListener("blur", allUp);
    };
  }, []);
}

const IS_MAC = /^(Mac|iPhone|iPad)/.test(globalThis.navigator?.platform ?? "");

type Press = Pick<KeyboardEvent, "key" | "code" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey"> &
  Partial<Pick<KeyboardEvent, "getModifierState">>;

/** An event's chord in the notation of `Binding.keys`. Shift is included only if it does not produce the character. */
export function chordOf(event: Press, mac = IS_MAC): string {
  const key = event.key === " " ? "Space" : event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const letterOrNamed = key.length > 1 || key.toLowerCase() !== key.toUpperCase();
  // Systems report the key for a third character, as for brackets on many keyboards, as Ctrl with Alt.
  const third = event.getModifierState?.("AltGraph") === true;
  const mod = !third && (mac ? event.metaKey : event.ctrlKey);
  return chord(mod, !third && event.altKey, event.shiftKey && letterOrNamed, key);
}

/**
 * The chord by physical key, as on a US keyboard: for signs and digits that other keyboards produce with a further key, for letters of
 * other scripts, and for letters with Alt, which a Mac turns into other characters. Null for all other keys.
 */
export function placeChordOf(event: Press, mac = IS_MAC): string | null {
  // A letter of the alphabet means itself, wherever its key is.
  if (/^[a-z]$/i.test(event.key)) return null;
  const mod = mac ? event.metaKey : event.ctrlKey;
  const signs = SIGN_AT[event.code];
  if (signs) return chord(mod, event.altKey, false, event.shiftKey ? signs[1] : signs[0]);
  const [, digit, letter] = /^Digit(\d)$|^Key([A-Z])$/.exec(event.code) ?? [];
  if (digit) return event.shiftKey ? null : chord(mod, event.altKey, false, digit);
  return letter && (event.altKey || OTHER_LETTER.test(event.key)) ? chord(mod, event.altKey, event.shiftKey, letter.toLowerCase()) : null;
}

/** As Cyrillic, Greek, Hebrew or Korean keyboards type them: sometimes a mark of one, or two at once. */
const OTHER_LETTER = /^[\p{L}\p{M}]{1,2}$/u;

const SIGN_AT: Readonly<Record<string, readonly [plain: string, shifted: string]>> = {
  BracketLeft: ["[", "{"],
  BracketRight: ["]", "}"],
  Semicolon: [";", ":"],
  Comma: [",", "<"],
  Period: [".", ">"],
  Slash: ["/", "?"],
  Minus: ["-", "_"],
  Equal: ["=", "+"],
};

function chord(mod: boolean, alt: boolean, shift: boolean, key: string): string {
  return `${mod ? "Mod+" : ""}${alt ? "Alt+" : ""}${shift ? "Shift+" : ""}${key}`;
}

/** The press of a chord, for what asks which keys were held. */
export function pressOf(chord: string): KeyboardEvent {
  const parts = chord.split("+");
  const key = parts.at(-1) ?? "";
  return new KeyboardEvent("keydown", {
    key: key === "Space" ? " " : key,
    ctrlKey: parts.includes("Mod") && !IS_MAC,
    metaKey: parts.includes("Mod") && IS_MAC,
    altKey: parts.includes("Alt"),
    shiftKey: parts.includes("Shift"),
  });
}

function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !/^(checkbox|radio|button|submit|reset|file|color)$/.test(target.type);
  // A closed select takes letters too: they select a matching option.
  return target instanceof HTMLElement && (target.isContentEditable || target.tagName === "TEXTAREA" || target.role === "combobox");
}

/** A select takes letters, but nothing with Ctrl: undo after a choice means the project. */
function isClosedList(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.role === "combobox" && !(target instanceof HTMLInputElement);
}

/** What a slider does itself; all other keys mean what they mean everywhere, though a click has left the focus on it. */
const SLIDER_KEYS: ReadonlySet<string> = new Set(["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "Home", "End", "PageUp", "PageDown"]);

function isOnSlider(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role="slider"]') !== null;
}

function isInOverlay(target: EventTarget | null): boolean {
  if (target instanceof Element && target.closest('[role="dialog"], [role="menu"], [data-overlay]')) return true;
  // Leaving a field with Enter leaves the focus nowhere; what is under a dialog is out of reach anyway.
  return document.querySelector("[data-modal]") !== null;
}

/** Whether Space or Enter belong to the focused element. Elements that only select, marked as such, leave them to the player. */
function isControl(target: EventTarget | null): boolean {
  return (
    target instanceof Element &&
    target.closest('button:not([data-chooses]), a, [role="radio"], [role="checkbox"], [role="slider"]') !== null
  );
}

const SIGNS: Record<string, string> = {
  Space: "Space",
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  Escape: "Esc",
  Delete: "Del",
  Backspace: "⌫",
  Mod: IS_MAC ? "⌘" : "Ctrl",
};

/** A chord for display: `Ctrl+Shift+Z`, `←`. */
export function chordInWords(chord: string): string {
  return chord
    .split("+")
    .map((part) => SIGNS[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join("+");
}
