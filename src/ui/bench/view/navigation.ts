import type { Camera } from "./camera";

/** A press that goes farther is a drag; one that does not is a click. */
export const DRAG_PIXELS = 4;

/**
 * Turning, moving and zooming by mouse and touchpad on an element. Right drag (or Space and drag) turns, middle drag
 * moves, the wheel zooms; two fingers move, pinching zooms. @returns a function that takes it off again
 */
export function navigate(element: HTMLElement, camera: Camera, leftTurns: () => boolean): () => void {
  let way: "turn" | "move" | undefined;
  let pressed: readonly [number, number] = [0, 0];
  let space = false;
  const down = (e: PointerEvent) => {
    // cards and the tray lie over the model and keep their pointers
    if ((e.target as Element).closest("[data-overlay]")) return;
    const turn = e.button === 2 || (e.button === 0 && (space || leftTurns()) && !e.shiftKey);
    way = turn ? "turn" : e.button === 1 || (e.button === 0 && e.shiftKey && leftTurns()) ? "move" : undefined;
    pressed = [e.clientX, e.clientY];
  };
  const move = (e: PointerEvent) => {
    // a press that goes nowhere is a click on what lies there, and is that thing's
    if (!way || (!element.hasPointerCapture(e.pointerId) && !isDrag(e))) return;
    element.setPointerCapture(e.pointerId);
    if (way === "turn") camera.orbit(e.movementX, e.movementY);
    if (way === "move") camera.pan(e.movementX, e.movementY);
  };
  const isDrag = (e: PointerEvent) => Math.hypot(e.clientX - pressed[0], e.clientY - pressed[1]) >= DRAG_PIXELS;
  const up = () => (way = undefined);
  const wheel = (e: WheelEvent) => {
    if ((e.target as Element).closest("[data-overlay]")) return;
    e.preventDefault();
    const box = element.getBoundingClientRect();
    const at = [e.clientX - box.left, e.clientY - box.top] as const;
    // a touchpad's two fingers come in small steps on both axes; a pinch comes with the control key
    const fingers = !e.ctrlKey && e.deltaMode === 0 && (e.deltaX !== 0 || Math.abs(e.deltaY) < 40);
    if (fingers) camera.pan(-e.deltaX, -e.deltaY);
    else camera.zoom(Math.exp(-Math.max(-120, Math.min(120, e.deltaY)) * (e.ctrlKey ? 0.01 : 0.0018)), at);
  };
  const menu = (e: Event) => e.preventDefault();
  const key = (event: KeyboardEvent) => {
    if (
      event.code === "Space" &&
      !(
        event.target instanceof HTMLInputElement ||
        event.target instanceof HTMLButtonElement ||
        event.target instanceof HTMLTextAreaElement
      )
    ) {
      space = event.type === "keydown";
      event.preventDefault();
    }
  };
  element.addEventListener("pointerdown", down);
  element.addEventListener("pointermove", move);
  element.addEventListener("pointerup", up);
  element.addEventListener("pointercancel", up);
  element.addEventListener("wheel", wheel, { passive: false });
  element.addEventListener("contextmenu", menu);
  window.addEventListener("keydown", key);
  window.addEventListener("keyup", key);
  return () => {
    element.removeEventListener("pointerdown", down);
    element.removeEventListener("pointermove", move);
    element.removeEventListener("pointerup", up);
    element.removeEventListener("pointercancel", up);
    element.removeEventListener("wheel", wheel);
    element.removeEventListener("contextmenu", menu);
    window.removeEventListener("keydown", key);
    window.removeEventListener("keyup", key);
  };
}
