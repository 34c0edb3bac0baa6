/** Small controls of the page, made from plain HTML. */

type Attributes = Readonly<Record<string, string>>;

export function element<Tag extends keyof HTMLElementTagNameMap>(
  tag: Tag,
  attributes: Attributes = {},
  ...children: readonly (Node | string)[]
): HTMLElementTagNameMap[Tag] {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) made.setAttribute(name, value);
  made.append(...children);
  return made;
}

/** A button with a word; `run` is called when it is pressed. */
export function button(text: string, run: () => void, attributes: Attributes = {}): HTMLButtonElement {
  const made = element("button", { type: "button", ...attributes }, text);
  made.addEventListener("click", run);
  return made;
}

export function tick(text: string, checked: boolean, run: (checked: boolean) => void): HTMLLabelElement {
  const box = element("input", { type: "checkbox" });
  box.checked = checked;
  box.addEventListener("change", () => run(box.checked));
  return element("label", {}, box, ` ${text}`);
}

/** One of several values, by its words. */
export function choice<Value extends string | number>(
  text: string,
  options: readonly (readonly [Value, string])[],
  value: Value,
  run: (value: Value) => void,
): HTMLLabelElement {
  const list = element("select");
  for (const [each, words] of options) {
    const option = element("option", { value: String(each) }, words);
    option.selected = each === value;
    list.append(option);
  }
  list.addEventListener("change", () => {
    const [chosen] = options[list.selectedIndex] ?? [];
    if (chosen !== undefined) run(chosen);
  });
  return element("label", {}, `${text} `, list);
}

/** A button that is down while it is held, by pointer or by key. */
export function heldButton(text: string, run: (down: boolean) => void): HTMLButtonElement {
  const made = element("button", { type: "button" }, text);
  let down = false;
  const work = (next: boolean) => {
    if (next === down) return;
    down = next;
    made.classList.toggle("on", down);
    run(down);
  };
  made.addEventListener("pointerdown", (event) => {
    made.setPointerCapture(event.pointerId);
    work(true);
  });
  for (const end of ["pointerup", "pointercancel", "blur"]) made.addEventListener(end, () => work(false));
  const isPress = ({ key }: KeyboardEvent) => key === " " || key === "Enter";
  made.addEventListener("keydown", (event) => {
    if (!isPress(event)) return;
    event.preventDefault();
    work(true);
  });
  made.addEventListener("keyup", (event) => isPress(event) && work(false));
  return made;
}
