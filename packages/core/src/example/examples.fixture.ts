/** Metadata files of different structures, all invented by us, and atlases to write in their shape. */
import type { Atlas, AtlasClip, AtlasFrame } from "../atlas";
import { readClips, readFrames, recognise, unseen } from "../metadata";

/** Keyed records, a nested rectangle, what was trimmed, shares of origins; clips as lists of names with a pace. */
export const KEYED = `{
  "made": "by hand, in spring",
  "picture": { "file": "hero.png", "size": { "w": 128, "h": 96 }, "scale": 1 },
  "total": 4,
  "frames": {
    "walk_0.png": { "bounds": {"x": 2, "y": 2, "w": 20, "h": 34}, "turned": false, "trimmed": true, "whole": {"w": 48, "h": 48}, "trimOffset": {"x": 4, "y": 14, "w": 20, "h": 34}, "pivot": {"x": 0.5, "y": 1.0}, "note": "a" },
    "walk_1.png": { "bounds": {"x": 24, "y": 2, "w": 22, "h": 33}, "turned": false, "trimmed": true, "whole": {"w": 48, "h": 48}, "trimOffset": {"x": 3, "y": 15, "w": 22, "h": 33}, "pivot": {"x": 0.5, "y": 1.0}, "note": "b" },
    "strike_0.png": { "bounds": {"x": 50, "y": 2, "w": 19, "h": 35}, "turned": true, "trimmed": true, "whole": {"w": 48, "h": 48}, "trimOffset": {"x": 5, "y": 13, "w": 19, "h": 35}, "pivot": {"x": 0.25, "y": 1.0}, "note": "b" },
    "strike_1.png": { "bounds": {"x": 2, "y": 40, "w": 30, "h": 32}, "turned": false, "trimmed": true, "whole": {"w": 48, "h": 48}, "trimOffset": {"x": 0, "y": 16, "w": 30, "h": 32}, "pivot": {"x": 0.5, "y": 1.0}, "note": "b" }
  },
  "moves": {
    "walk": { "frames": ["walk_0.png", "walk_1.png"], "fps": 8, "loop": true },
    "strike": { "frames": ["strike_0.png", "strike_1.png", "strike_0.png"], "fps": 20, "loop": false }
  }
}`;

/** XML: everything in attributes, steps of clips as elements with their own times, remarks among them. */
export const TAGGED = `<?xml version="1.0" encoding="UTF-8"?>
<!-- drawn by hand -->
<sheet file='hero.png' width='128' height='96'>
  <part id='walk_0' left='2' top='2' right='22' bottom='36' feetX='10' feetY='34'/>
  <part id='walk_1' left='24' top='2' right='46' bottom='35' feetX='11' feetY='33'/>
  <part id='strike &amp; 0' left='48' top='2' right='67' bottom='37' feetX='9.5' feetY='35'/>
  <!-- what they do -->
  <movement name='walk' repeat='true'>
    <show part='walk_0' ms='90'/>
    <show part='walk_1' ms='120.5'/>
  </movement>
  <movement name='strike' repeat='false'>
    <show part='strike &amp; 0' ms='60'/>
    <show part='walk_0' ms='200'/>
    <show part='walk_1' ms='200'/>
  </movement>
</sheet>`;

/** A table: every row is a step of a clip in a direction. */
export const TABLED = `# hero, by hand
animation;direction;file;x;y;w;h;seconds
walk;left;hero.png;2;2;20;34;0.1
walk;left;hero.png;24;2;22;33;0.1
walk;right;hero.png;48;2;19;35;0.1
walk;right;hero.png;70;2;21;34;0.15
strike;left;hero.png;2;40;30;32;0.05
strike;left;hero.png;34;40;36;30;0.05`;

/** Sections of lines, one for the picture, the others for its frames. */
export const LINED = `hero.png
  measures: 128, 96
  look: crisp
walk_0
  number: 0
  turned: no
  at: 2, 2
  extent: 20, 34
  full: 26, 36
  offset: 3, 2
walk_1
  number: 1
  turned: no
  at: 24, 2
  extent: 22, 33
  full: 28, 36
  offset: 3, 3

strike_0
  number: 2
  turned: no
  at: 48, 44
  extent: 19, 35
  full: 22, 35
  offset: 1, 0`;

/** Frames inside their clips, which are keyed by name. */
export const NESTED = `{ "sheet": "hero.png",
  "moves": {
    "walk":   { "fps": 8,  "loop": true,  "pictures": [ [2, 2, 20, 34], [24, 2, 22, 33], [48, 2, 19, 35] ] },
    "strike": { "fps": 20, "loop": false, "pictures": [ [2, 40, 30, 32], [34, 40, 36, 30] ] }
  } }`;

/** Keys and values in turn, rectangles as text, runs of numbers. */
export const PAIRED = `<pictures><dict>
  <key>frames</key><dict>
    <key>walk_0</key><dict><key>place</key><string>{{2,2},{20,34}}</string><key>turned</key><false/></dict>
    <key>walk_1</key><dict><key>place</key><string>{{24,2},{22,33}}</string><key>turned</key><false/></dict>
    <key>strike_0</key><dict><key>place</key><string>{{48,2},{19,35}}</string><key>turned</key><true/></dict>
  </dict>
  <key>picture</key><string>hero.png</string>
</dict></pictures>`;

/** Several pages, each with its frames; clips as runs of numbers. */
export const PAGED = `{"sheets": [
  {"image": "hero-0.png", "width": 64, "height": 64, "items": [
    {"name": "walk/0", "x": 0, "y": 0, "w": 20, "h": 30, "ox": 10, "oy": 30},
    {"name": "walk/1", "x": 20, "y": 0, "w": 21, "h": 30, "ox": 10, "oy": 30}]},
  {"image": "hero-1.png", "width": 32, "height": 64, "items": [
    {"name": "strike/0", "x": 0, "y": 0, "w": 22, "h": 31, "ox": 12, "oy": 31}]}],
 "runs": [{"clip": "walk", "first": 0, "last": 1, "ms": 100}, {"clip": "all", "first": 0, "last": 2, "ms": 50}]}`;

/** A rectangle below each record, frames with times of their own, clips as runs that say how they play in words. */
export const LISTED = `{
  "info": { "image": "hero.png", "w": 128, "h": 96, "scale": 1 },
  "pieces": [
    { "label": "walk 0", "place": { "x": 0, "y": 0, "w": 32, "h": 32 }, "ms": 100 },
    { "label": "walk 1", "place": { "x": 32, "y": 0, "w": 30, "h": 32 }, "ms": 100 },
    { "label": "rest", "place": { "x": 64, "y": 40, "w": 32, "h": 33 }, "ms": 250 }
  ],
  "moves": [
    { "name": "walk", "from": 0, "to": 1, "way": "forward" },
    { "name": "rest", "from": 2, "to": 2, "way": "pingpong" }
  ]
}`;

/** Corners, the second being the last pixel inside. */
export const LAST_INSIDE = `{
  "image": "hero.png", "width": 128, "height": 96,
  "pieces": [
    { "name": "walk 0", "left": 0, "top": 0, "last_x": 31, "last_y": 31 },
    { "name": "walk 1", "left": 32, "top": 0, "last_x": 61, "last_y": 31 },
    { "name": "rest", "left": 64, "top": 40, "last_x": 95, "last_y": 72 }
  ]
}`;

/** YAML in blocks and in brackets, with remarks, with and without quotes. */
export const BLOCKS = `# hero, by hand
picture: hero.png   # beside this file
size: {w: 128, h: 96}
frames:
  - name: walk 0
    rect: {x: 2, y: 2, w: 20, h: 34}
    feet: [10, 34]
  - name: "walk 1"
    rect: {x: 24, y: 2, w: 22, h: 33}
    feet: [11, 33]
  - name: 'strike: 0'
    rect: {x: 48, y: 2, w: 19, h: 35}
    feet: [9.5, 35]
clips:
  walk:
    loop: true
    frames: [walk 0, walk 1]
    fps: 8
  strike:
    loop: false
    frames:
      - 'strike: 0'
      - walk 0
    fps: 20`;

/** How far the picture is pushed to the left and up behind a window of each frame's size. */
export const PUSHED = `{
  "image": "hero.png",
  "windows": [
    { "name": "walk-0", "x": 0, "y": 0, "w": 32, "h": 32 },
    { "name": "walk-1", "x": -32, "y": 0, "w": 30, "h": 32 },
    { "name": "rest", "x": -64, "y": -40, "w": 32, "h": 33 }
  ]
}`;

/** Cells by their numbers, counted from 1. */
export const NUMBERED = `{
  "image": "hero.png", "cell": { "w": 32, "h": 32 }, "columns": 4,
  "cells": [ { "name": "walk 0", "cell": 1 }, { "name": "walk 1", "cell": 2 }, { "name": "rest", "cell": 7 } ]
}`;

/** What an example itself says, as an atlas. */
export function atlasOfExample(text: string): Atlas {
  const { parsed, reading } = recognise(text, unseen(""), "example");
  const { frames } = readFrames(parsed, reading, unseen(""));
  const images = [...new Set(text.match(/[\w-]+\.png(?=["';,\n])/g)?.filter((name) => name.startsWith("hero")) ?? ["hero.png"])];
  const pageOf = (index: number) => (images.length > 1 && index > 1 ? 1 : 0);
  const sizes =
    images.length > 1
      ? [
          [64, 64],
          [32, 64],
        ]
      : [[128, 96]];
  return {
    format: "caravan-atlas",
    version: 1,
    pages: images.map((image, k) => ({
      image,
      width: sizes[k]?.[0] ?? 0,
      height: sizes[k]?.[1] ?? 0,
      scale: 1,
      filter: "nearest" as const,
    })),
    frames: Object.fromEntries(
      frames.map(({ name, rect, turned, inset, size, origin }, k): [string, AtlasFrame] => [
        name.replace(/\.png$/, ""),
        { page: pageOf(k), rect, turned: turned === true, inset, size, origin: origin ?? { x: 0, y: 0 } },
      ]),
    ),
    ...clipsOfExample(text),
  };
}

function clipsOfExample(text: string): Pick<Atlas, "clips" | "actions"> {
  const { parsed, reading } = recognise(text, unseen(""), "example");
  const { frames } = readFrames(parsed, reading, unseen(""));
  const clips: Record<string, AtlasClip> = {};
  const actions: Atlas["actions"] = {};
  for (const { name, facing, playback, times, steps } of readClips(parsed, reading, frames)) {
    const called = facing === null ? name : `${name}-${facing}`;
    clips[called] = {
      steps: steps.map(({ frame, ms }) => ({ frame: frame.replace(/\.png$/, ""), ms: ms ?? 100 })),
      playback,
      times,
      loopFrom: 0,
      after: "hold",
    };
    if (facing !== null) actions[name] = { facings: { ...actions[name]?.facings, [facing]: { clip: called } } };
  }
  return { clips, actions };
}
