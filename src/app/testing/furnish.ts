import { configure, fireEvent } from "@testing-library/react";

/** What a browser has and jsdom has not, as far as our controls ask for it. */
export function furnish(): void {
  // A machine that is busy otherwise is slow, not wrong. In milliseconds.
  configure({ asyncUtilTimeout: 30_000 });
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollIntoView = () => undefined;
  Element.prototype.scrollTo = function (this: Element, to?: ScrollToOptions | number) {
    this.scrollTop = typeof to === "object" ? (to.top ?? 0) : 0;
    this.dispatchEvent(new Event("scroll"));
  };
  Element.prototype.hasPointerCapture = () => false;
  Element.prototype.setPointerCapture = () => undefined;
  globalThis.CSS = { escape: (name: string) => name.replaceAll(/[^\w-]/g, "\\$&") } as typeof CSS;
  Object.defineProperty(navigator, "userActivation", { configurable: true, value: { hasBeenActive: true } });
  window.matchMedia = () =>
    ({
      matches: false,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }) as unknown as MediaQueryList;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Gives everything on the page one size, its corner at the origin. jsdom lays nothing out. */
export function layOut({ width, height }: Size): void {
  const box = { x: 0, y: 0, left: 0, top: 0, right: width, bottom: height, width, height, toJSON: () => "" };
  Element.prototype.getBoundingClientRect = () => box;
  const sizes = { offsetWidth: width, offsetHeight: height, clientWidth: width, clientHeight: height };
  for (const [name, size] of Object.entries(sizes))
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, value: size });
}

/** A plot is as large as its picture says, so that its own units are pixels. */
export function layOutPlot(plot: SVGSVGElement): void {
  const [, , width = 0, height = 0] = (plot.getAttribute("viewBox") ?? "").split(" ").map(Number);
  layOut({ width, height });
  Object.defineProperty(plot, "viewBox", { configurable: true, value: { baseVal: { x: 0, y: 0, width, height } } });
}

type Point = readonly [x: number, y: number];

/** Presses at the first point, goes by the others, and lets go at the last. */
export function drag(element: Element, points: readonly Point[], held: { readonly shiftKey?: boolean } = {}): void {
  const at = ([clientX, clientY]: Point) => ({ clientX, clientY, button: 0, pointerId: 1, ...held });
  const [first = [0, 0] as const, ...others] = points;
  fireEvent.pointerDown(element, at(first));
  for (const point of others) fireEvent.pointerMove(element, at(point));
  fireEvent.pointerUp(element, at(points.at(-1) ?? first));
}
