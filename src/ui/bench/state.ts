import type { PartCommand } from "@/core/part/commands";
import type { History } from "@/core/units/history";
import type { Step } from "@/core/part/steps/kinds";
import type { SketchCommand } from "@/core/sketch/command-schema";
import type { Proposal } from "@/core/sketch/define";
import type { Plane } from "@/core/sketch/sketch";
import type { DatumPlane } from "@/core/geometry/frame";
import type { Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import type { Answer, Built, Question } from "./kernel/messages";
import type { PartDocument } from "@/core/part/document";
import type { MassUnit } from "@/core/units/amounts";
import type { Saver, SaveState } from "../parts/saver";
import type { NewDimension, Tool } from "./tools/tool";
import type { Camera } from "./view/camera";

/** What is being worked on: the solid, a sketch, a step's card, or the choice of a plane. */
export type Mode =
  | { readonly kind: "solid" }
  | { readonly kind: "sketch"; readonly step: string }
  | StepMode
  | { readonly kind: "plane"; readonly move?: string };

/** A step whose card is open. */
export interface StepMode {
  readonly kind: "step";
  readonly draft: Step;
  /** Not yet among the part's steps. */
  readonly fresh: boolean;
  /** Its place among them. */
  readonly at: number;
  /** Which opening of a card this is: another has fields of its own. */
  readonly opening: number;
  /** What the draft was before each change within the card, and what was taken back. */
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** Something else was begun while a card stands that cannot be accepted as it is. */
interface Leaving {
  readonly why: string;
  readonly next: () => void;
}

/** How a datum plane is moved and tilted before a sketch is laid on it; mm and degrees. */
export interface PlaneShift {
  readonly offset?: number;
  readonly tilt?: { readonly about: "x" | "y"; readonly angle: number };
}

interface Message {
  readonly kind: "notice" | "trouble";
  readonly text: string;
  /** Things it is about, to be marked. */
  readonly about: readonly string[];
}

/** A change that was refused because relations disagree, and which of those there are could give way. */
interface Dispute {
  readonly command: SketchCommand;
  readonly ids: readonly string[];
  /** Everything could be met, but not from how the sketch is drawn: it may be drawn so. */
  readonly elsewhere: boolean;
}

/** What a click on the part means while a step's card asks for something: the part as it was before that step. */
export interface PickField {
  /** Which field of the card. */
  readonly id: string;
  readonly name: string;
  readonly take: readonly Thing["kind"][];
  /**
   * Takes what was clicked, or gives it back when it was taken already; renewed with the draft, which is no change to
   * show.
   */
  give: (model: Model, thing: Thing, at?: Vec3) => void;
}

/** How the solid is looked at; plays no part in any number. */
export interface Looking {
  readonly faces: "both" | "faces" | "visible" | "all";
  readonly tangent: "shown" | "thin" | "off";
  readonly section: { readonly base: DatumPlane; readonly offset: number; readonly flip: boolean } | undefined;
  /** Bodies that are hidden. */
  readonly hidden: readonly string[];
  readonly fineness: number;
  readonly planes: boolean;
  readonly axes: boolean;
  /** Sketches that no step uses. */
  readonly sketches: boolean;
  /** Sketches and datums shown or hidden by themselves, whatever their kind is. */
  readonly single: Readonly<Record<string, boolean>>;
}
export const PLAIN_LOOK: Looking = {
  faces: "both",
  tangent: "thin",
  section: undefined,
  hidden: [],
  fineness: 1,
  planes: true,
  axes: true,
  sketches: true,
  single: {},
};

/** Cards that lie over the model on demand. */
export type PanelName =
  "sizes" | "finding" | "files" | "help" | "numbers" | "look" | "out" | "strays" | "colour" | "mass" | "history";

/** The pointer of whoever draws with the keyboard. */
interface KeyPointer {
  /** Moves it by so many of its steps to the right and up. */
  nudge(right: number, up: number): void;
  /** Presses where it stands. @returns false while it is not in use */
  press(shift: boolean): boolean;
}

/** The tool at work, for keys; it lives in the sketch's layer. */
export class Hand {
  tool: Tool | undefined;
  redraw: () => void = () => {};
  /** A pointer moved by the arrow keys. */
  keyPointer: KeyPointer | undefined;
  again(): boolean {
    const did = this.tool?.again?.() ?? false;
    if (did) this.redraw();
    return did;
  }
  enter(): boolean {
    const did = this.tool?.enter?.() ?? false;
    if (did) this.redraw();
    return did;
  }
}

/** A size being typed: of a dimension that is there, or of a new one. */
type Typing = { readonly id: string } | { readonly fresh: NewDimension };

export interface BenchState {
  readonly history: History<PartDocument>;
  readonly mode: Mode;
  readonly toolName: string;
  readonly selection: readonly string[];
  /** What is picked on the solid. */
  readonly things: readonly Thing[];
  readonly pickField: PickField | undefined;
  /** What was asked while the open card could neither be accepted nor left without losing something. */
  readonly leaving: Leaving | undefined;
  /** What stands in fields of the open card and cannot be read, by field. */
  readonly wrong: ReadonlyMap<string, string>;
  /** What was gone to on the part with the keys. */
  readonly reached: Thing | undefined;
  /** How many steps deep into what lies under the pointer. */
  readonly behind: number;
  /** Steps shown built: all, or so many. */
  readonly upTo: number | undefined;
  readonly looking: Looking;
  readonly typing: Typing | undefined;
  readonly built: Built | undefined;
  readonly building: boolean;
  /** What is shown is the part as it was seen last: the kernel has not built it yet. */
  readonly isAsItWas: boolean;
  readonly message: Message | undefined;
  readonly saved: SaveState;
  readonly ticked: ReadonlySet<string>;
  readonly camera: Camera;
  readonly hand: Hand;
  readonly dispute: Dispute | undefined;
  readonly planeShift: PlaneShift;
  /** What Define the rest proposes, being looked through. */
  readonly proposals: readonly Proposal[] | undefined;
  readonly panel: PanelName | undefined;
  /** Whether what is loose swings. */
  readonly swinging: boolean;
  /** How the part shows behind a sketch. */
  readonly see: "faded" | "cut" | "solid";
  /** Whether this handout lets the program propose what is missing. */
  readonly mayDefine: boolean;
  /** Kinds of steps that are offered; undefined: all. */
  readonly mayUse: readonly string[] | undefined;
  /** What masses are lettered in. */
  readonly massUnit: MassUnit | undefined;

  run(command: PartCommand): boolean;
  draw(command: SketchCommand): boolean;
  undo(): void;
  redo(): void;
  select(ids: readonly string[]): void;
  setTool(name: string): void;
  setTyping(t: Typing | undefined): void;
  say(m: Message | undefined): void;
  openSketch(step: string): void;
  /** A new sketch on a plane, or the one being moved there. */
  takePlane(plane: Plane): void;
  /** A new step of a kind, its card open. */
  openStep(kind: Step["kind"], preset?: Partial<Step>): void;
  /** Opens the card of a step. @param wanted what is to be picked first */
  editStep(step: Step, wanted?: PickField): void;
  /** Changes the step whose card is open, and shows it. */
  changeDraft(change: (draft: Step) => Step): void;
  /** While it holds, all changes of the draft are one to take back: a number being typed, an arrow being dragged. */
  holdDraft(isHeld: boolean): void;
  acceptDraft(): boolean;
  /** Ends the open card before something else begins: accepted, or asked about; what was made is never lost. */
  endCard(next: () => void): void;
  /** The answer to what was asked: the card is left and what was wanted begins, or the card stays. */
  answerLeaving(leaves: boolean): void;
  tellWrong(field: string, sentence: string | undefined): void;
  buildUpTo(count: number | undefined): void;
  look(change: Partial<Looking>): void;
  pickThings(things: readonly Thing[]): void;
  setPickField(field: PickField | undefined): void;
  ask(question: Question): Promise<Answer>;
  choosePlane(move?: string): void;
  openPanel(name: PanelName | undefined): void;
  defineRest(): void;
  /** Goes on with a refused change after one of those that disagree has given way. */
  settleDispute(give: { remove: string } | { measure: string } | { redraw: true }): void;
  movePlane(plane: Plane): void;
  copy(cut: boolean): void;
  paste(): void;
  leave(): void;
  fit(): void;
  tick(id: string): void;
  /** Resolves when every change is on the server. */
  settled(): Promise<void>;
  readonly saver: Saver;
  /** Who works here. */
  readonly owner: string;
  /** Takes up what an earlier window left, and begins. */
  open(): Promise<void>;
  /** Goes on from another document: a version restored, a variant gone over to. */
  goOn(document: PartDocument, version: number): void;
  close(): void;
}
