"use client";

import { type ComponentType, use } from "react";

/** A component whose code loads when it is first shown, or earlier by `load`. Meanwhile the nearest `Suspense` waits. */
export type Part<Props> = ComponentType<Props> & { readonly load: () => Promise<unknown> };

const failed = new Set<() => void>();

/** Allows parts whose code did not load to be requested again, after a failure. */
export function forgetFailedParts(): void {
  for (const forget of failed) forget();
  failed.clear();
}

export function part<Props extends object>(loads: () => Promise<ComponentType<Props>>): Part<Props> {
  let Here: ComponentType<Props> | null = null;
  let coming: Promise<ComponentType<Props>> | null = null;
  const load = () => {
    coming ??= loads().then(
      (Loaded) => {
        Here = Loaded;
        return Loaded;
      },
      (error: unknown) => {
        failed.add(() => {
          coming = null;
        });
        throw error;
      },
    );
    return coming;
  };
  function Shown(props: Props) {
    const Now = Here ?? use(load());
    return <Now {...props} />;
  }
  return Object.assign(Shown, { load });
}
