"use client";

import { useProject } from "../../project/open-project";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { useDelivery } from "./chosen-delivery";

/** Which clips or actions go out, by name and by pattern, and how frames are called. */
export function WhatGoes() {
  const { delivery, set } = useDelivery();
  const { choice } = delivery;
  const names = useProject((project) => (choice.of === "actions" ? project.actions : project.clips));
  return (
    <Detail title="What goes">
      <Choice
        label="What goes"
        value={choice.of}
        options={[
          ["all", "All"],
          ["clips", "Clips"],
          ["actions", "Actions"],
        ]}
        onChange={(of) => set({ choice: { of, names: [] } })}
      />
      {choice.of !== "all" && (
        <>
          <div className="mt-2 flex items-center gap-1.5">
            <span className="text-small text-muted">names like</span>
            <TextField
              label="Names like"
              value={choice.pattern}
              placeholder="walk_*"
              onChange={(pattern) => set({ choice: { pattern: pattern.trim() } })}
              className="border-line"
            />
          </div>
          <fieldset className="mt-1.5 flex max-h-40 flex-col overflow-y-auto" aria-label={`Chosen ${choice.of}`}>
            {names.map(({ name }) => (
              <Tick
                key={name}
                label={name}
                checked={choice.names.includes(name)}
                onChange={(on) => set({ choice: { names: on ? [...choice.names, name] : choice.names.filter((each) => each !== name) } })}
              />
            ))}
          </fieldset>
        </>
      )}
      <div className="mt-2 flex items-center gap-1.5">
        <span className="text-small text-muted">frames are called</span>
        <TextField
          label="How frames are called"
          value={delivery.frameNames}
          onChange={(frameNames) => set({ frameNames: frameNames.trim() || "{name}" })}
          className="number border-line"
        />
      </div>
      <p className="mt-1 text-small text-muted">{"{name} {source} {row} {column} {clip} {step} {n}; {n:3} has three digits"}</p>
    </Detail>
  );
}
