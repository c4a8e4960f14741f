/** Dots in a millimetre: 200 an inch. */
const DOTS = 200 / 25.4;

/** The lettering of the page, to stand within a picture: fonts of a page do not reach into it. */
async function letteringFace(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((s) => {
    try {
      return [...s.cssRules];
    } catch {
      // a sheet of another origin
      return [];
    }
  });
  const face = rules.find(
    (r) => r instanceof CSSFontFaceRule && r.style.getPropertyValue("font-family").includes("B612 Mono"),
  ) as CSSFontFaceRule | undefined;
  const address = face && /url\("?([^")]+)"?\)/.exec(face.style.getPropertyValue("src"))?.[1];
  if (!address) return "";
  const bytes = new Uint8Array(
    await (await fetch(new URL(address, face.parentStyleSheet?.href ?? location.href))).arrayBuffer(),
  );
  let text = "";
  for (const b of bytes) text += String.fromCharCode(b);
  return `<style>@font-face{font-family:"B612 Mono";src:url(data:font/woff2;base64,${btoa(text)})}</style>`;
}

/** Keeps a Sheet as a PNG picture. @param address of its SVG */
export async function pngOf(address: string): Promise<void> {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error("no Sheet");
  const svg = (await answer.text()).replace(/(<svg[^>]*>)/, `$1${await letteringFace()}`);
  const [, width = 297, height = 210] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
  const picture = new Image();
  picture.src = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  await picture.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(Number(width) * DOTS);
  canvas.height = Math.round(Number(height) * DOTS);
  canvas.getContext("2d")!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  URL.revokeObjectURL(picture.src);
  const blob = await new Promise<Blob | null>((r) => canvas.toBlob(r, "image/png"));
  if (!blob) throw new Error("no picture");
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = `${/<title>([^<]*)<\/title>/.exec(svg)?.[1] ?? "Sheet"}.png`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
