"use client";

import { Component, type ReactNode } from "react";
import { Button } from "./button";
import { forgetFailedParts } from "./part";
import { t } from "./words";

interface Props {
  /** What is kept apart, in words: "Frames". */
  readonly name: string;
  readonly children: ReactNode;
  /** Called when a failure is shown. */
  readonly onFailure?: () => void;
}

/**
 * Contains a failure within one part of the screen: it shows what went wrong, and everything else keeps working, above all saving to a
 * file.
 */
export class Boundary extends Component<Props, { readonly error: Error | null }> {
  override state: { readonly error: Error | null } = { error: null };

  static getDerivedStateFromError(error: unknown): { error: Error } {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(): void {
    this.props.onFailure?.();
  }

  private readonly tryAgain = (): void => {
    forgetFailedParts();
    this.setState({ error: null });
  };

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    const missing = /chunk|module|fetch/i.test(error.message);
    return (
      <div role="alert" className="m-2 rounded-box border border-l-4 border-line border-l-brick bg-raised p-3">
        <h2 className="font-bold text-brick">{t("{name} cannot be shown", { name: this.props.name })}</h2>
        <p className="my-1 break-words">
          {missing
            ? t(
                "A part of Caravan could not be loaded: the server may have stopped, or was updated. Save the project to a file, then reload the page.",
              )
            : t("Internal error: {message} Your project is unchanged. Save it to a file, then reload the page.", {
                message: error.message,
              })}
        </p>
        <div className="flex flex-wrap gap-2">
          <Button look="now" onClick={this.tryAgain}>
            {t("Try again")}
          </Button>
          <Button onClick={() => location.reload()}>{t("Reload the page")}</Button>
        </div>
      </div>
    );
  }
}
