import * as THREE from "three";

/** Distances from which on a place counts as off, more off, and much off; mm. */
export type DeviationBands = readonly [number, number, number];

/**
 * A surface coloured by how far it lies off: one hue for too much, one for too little, deeper the further, and hatched
 * one way or the other, denser the further, so that the hue is not needed.
 */
export function deviationMaterial(
  bands: DeviationBands,
  ink: { readonly plain: THREE.Color; readonly over: THREE.Color; readonly under: THREE.Color },
): THREE.Material {
  const material = new THREE.MeshLambertMaterial({ color: ink.plain, polygonOffset: true, polygonOffsetFactor: 1 });
  material.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, {
      bands: { value: new THREE.Vector3(...bands) },
      // mixed after the colours were made ready for the screen
      over: { value: ink.over.clone().convertLinearToSRGB() },
      under: { value: ink.under.clone().convertLinearToSRGB() },
      plain: { value: ink.plain.clone().convertLinearToSRGB() },
    });
    shader.vertexShader = shader.vertexShader
      .replace("#include <common>", "#include <common>\nattribute float deviation;\nvarying float off;")
      .replace("#include <begin_vertex>", "#include <begin_vertex>\noff = deviation;");
    shader.fragmentShader = shader.fragmentShader
      .replace(
        "#include <common>",
        "#include <common>\nvarying float off;\nuniform vec3 bands;\nuniform vec3 over;\nuniform vec3 under;\n" +
          "uniform vec3 plain;",
      )
      .replace(
        "#include <dithering_fragment>",
        `#include <dithering_fragment>
         float far = abs(off);
         float level = step(bands.x, far) + step(bands.y, far) + step(bands.z, far);
         if (level > 0.5) {
           // the form stays visible: the hue is shaded as the plain surface is
           float shade = clamp(gl_FragColor.g / plain.g, 0.35, 1.15);
           vec3 hue = (off > 0.0 ? over : under) * shade;
           vec3 paler = mix(plain * shade, hue, 0.15 + 0.15 * level);
           float across = gl_FragCoord.x + (off > 0.0 ? -1.0 : 1.0) * gl_FragCoord.y;
           float line = step(mod(across, 15.0 - 3.0 * level), 1.0 + level);
           gl_FragColor.rgb = mix(paler, hue, line);
         }`,
      );
  };
  material.customProgramCacheKey = () => "deviation";
  return material;
}
