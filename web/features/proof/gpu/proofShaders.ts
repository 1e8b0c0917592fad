import { OVERLAY_WHOLE_AT } from '@/workers/proofOverlay';

/** One triangle over all of the canvas. */
export const WHOLE_CANVAS = `#version 300 es
void main() {
  vec2 corner = vec2(float((gl_VertexID << 1) & 2), float(gl_VertexID & 2));
  gl_Position = vec4(2.0 * corner - 1.0, 0.0, 1.0);
}`;

/**
 * The proof of one pixel, as `drawProof` works it out: by tetrahedra over three channels and straight over a fourth.
 * The grid lies in a texture of three dimensions, its last channel across; cubes of a fourth channel lie behind each other.
 */
export const PROOF_OF_PIXEL = `#version 300 es
precision highp float;
precision highp int;
precision highp usampler2D;
precision highp sampler3D;

uniform usampler2D picture;
uniform sampler3D colours; // signal of the screen 0..255, and ΔE00
uniform sampler3D inks; // sum of the device values
uniform int channels;
uniform int stride; // pixels of the picture to one of the canvas
uniform int points;
uniform int overlay; // 0 the print, 1 what is lost, 2 ink
uniform float mostInk;
out vec4 drawn;

struct Proof {
  vec4 colour;
  float ink;
};

void add(inout Proof proof, ivec3 at, float weight) {
  proof.colour += weight * texelFetch(colours, at, 0);
  proof.ink += weight * texelFetch(inks, at, 0).r;
}

void addCube(inout Proof proof, int cube, uvec3 values, float weight) {
  vec3 scaled = vec3(values) * (float(points - 1) / 255.0);
  ivec3 low = min(ivec3(scaled), ivec3(points - 2));
  vec3 share = scaled - vec3(low);
  // The largest share goes first, the smallest last.
  ivec3 first = share.x >= share.y && share.x >= share.z ? ivec3(1, 0, 0)
    : share.y > share.x && share.y >= share.z ? ivec3(0, 1, 0) : ivec3(0, 0, 1);
  ivec3 last = share.z <= share.x && share.z <= share.y && first.z == 0 ? ivec3(0, 0, 1)
    : share.y <= share.x && share.y <= share.z && first.y == 0 ? ivec3(0, 1, 0) : ivec3(1, 0, 0);
  float high = max(share.x, max(share.y, share.z));
  float least = min(share.x, min(share.y, share.z));
  float middle = share.x + share.y + share.z - high - least;
  ivec3 base = ivec3(low.z, low.y, low.x + cube * points);
  ivec3 one = first.zyx;
  ivec3 two = (ivec3(1) - last).zyx;
  add(proof, base, weight * (1.0 - high));
  add(proof, base + one, weight * (high - middle));
  add(proof, base + two, weight * (middle - least));
  add(proof, base + ivec3(1), weight * least);
}

void main() {
  ivec2 size = textureSize(picture, 0);
  ivec2 place = min(stride * ivec2(gl_FragCoord.xy) + stride / 2, size - 1);
  uvec4 values = texelFetch(picture, ivec2(place.x, size.y - 1 - place.y), 0);
  Proof proof = Proof(vec4(0.0), 0.0);
  if (channels == 1) {
    add(proof, ivec3(int(values.r), 0, 0), 1.0);
  } else if (channels == 3) {
    addCube(proof, 0, values.rgb, 1.0);
  } else {
    float scaled = float(values.r) * (float(points - 1) / 255.0);
    int cube = min(int(scaled), points - 2);
    float share = scaled - float(cube);
    addCube(proof, cube, values.gba, 1.0 - share);
    addCube(proof, cube + 1, values.gba, share);
  }
  vec3 shown = proof.colour.rgb / 255.0;
  if (overlay == 1) {
    float whole = clamp((proof.colour.a - 1.0) / ${(OVERLAY_WHOLE_AT - 1).toFixed(1)}, 0.0, 1.0);
    shown = mix(vec3(119.0 / 255.0), shown, whole);
  } else if (overlay == 2) {
    shown = vec3(1.0 - min(1.0, proof.ink / mostInk));
  }
  drawn = vec4(shown, 1.0);
}`;
