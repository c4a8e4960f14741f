/**
 * What every answer of the program says to a browser, whoever gives it. What is no page runs nothing, loads nothing and
 * stands in no frame; drawings bring their lettering with them.
 */
export const EVERYWHERE: Readonly<Record<string, string>> = {
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
};
export const NO_PAGE: Readonly<Record<string, string>> = {
  ...EVERYWHERE,
  "content-security-policy": [
    "default-src 'none'",
    "style-src 'unsafe-inline'",
    "font-src data:",
    "img-src data:",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join("; "),
};
