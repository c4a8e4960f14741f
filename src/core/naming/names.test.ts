import fc from "fast-check";
import { expect, it } from "vitest";
import {
  facesOfPicture,
  formatEdge,
  formatFace,
  formatRegion,
  imageFace,
  isMarked,
  marked,
  parseEdge,
  parseFace,
  parsePicture,
  parseRegion,
  renamedEdge,
  sectionKey,
  silhouetteKey,
  stepOf,
  unmarked,
} from "./names";

const word = fc.stringMatching(/^[a-z][a-z0-9-]{0,8}$/);
const simple = fc.record({ step: word, role: word, of: word });
const face = fc.oneof(
  fc.record({ step: word, role: word }),
  simple,
  // images of images
  fc.record({ step: word, role: fc.constantFrom("image", "inner"), of: simple.map(formatFace) }),
);

it("what is written of a face is read again", () =>
  fc.assert(fc.property(face, (n) => void expect(parseFace(formatFace(n))).toEqual(n))));

it("an edge is written the same whichever face comes first, and gives both back", () =>
  fc.assert(
    fc.property(face, face, (a, b) => {
      const [p, q] = [formatFace(a), formatFace(b)];
      expect(formatEdge([p, q])).toBe(formatEdge([q, p]));
      expect([...parseEdge(formatEdge([p, q]))].sort()).toEqual([p, q].sort());
    }),
  ));

it("a mark tells apart and is taken off again", () =>
  fc.assert(
    fc.property(face, fc.integer({ min: 2, max: 40 }), (n, k) => {
      const key = formatFace(n);
      expect([isMarked(key), isMarked(marked(key, k)), marked(key, 1)]).toEqual([false, true, key]);
      expect(unmarked(marked(key, k))).toBe(key);
      expect(parseFace(marked(key, k))).toEqual(n);
    }),
  ));

it("images of faces and edges stand behind their prefix", () => {
  expect(imageFace("p/copy/3", "b/side/l1")).toBe("p/copy/3/b/side/l1");
  expect(stepOf("p/copy/3/b/side/l1")).toBe("p");
  expect(parseFace("p/copy/3/b/side/l1")).toEqual({ step: "p", role: "copy", of: "3/b/side/l1" });
  expect(renamedEdge("b/side/l2|a/end", (f) => imageFace("m/image", f))).toBe("m/image/b/side/l2|m/image/a/end");
});

it("pictures are of an edge, an outline or a section", () => {
  expect(parsePicture("b/side/l1|b/end")).toEqual({ kind: "edge", faces: ["b/side/l1", "b/end"] });
  expect(parsePicture(sectionKey("b/side/l1"))).toEqual({ kind: "section", face: "b/side/l1" });
  expect(parsePicture(marked(silhouetteKey("b/end"), 2))).toEqual({ kind: "silhouette", face: "b/end" });
  expect(facesOfPicture("section/m/image/b/end")).toEqual(["m/image/b/end"]);
});

it("regions are written with sides and places where those are told", () => {
  for (const name of ["c1", "c1+l1", "c1+l1#lr", "c1+l1#bl.2of3"]) expect(formatRegion(parseRegion(name))).toBe(name);
  expect(parseRegion("c1+l1#lr.2of3")).toEqual({ curves: ["c1", "l1"], sides: "lr", place: { nth: 2, of: 3 } });
});
