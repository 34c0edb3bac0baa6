/**
 * Decodes stills that only the browser can read (WebP, JPEG, AVIF, BMP) to exact pixels. Neither a 2-D canvas nor an image decoder
 * returns the exact colours of half-transparent pixels; a texture does.
 */
import { CaravanError } from "@caravan/core/model";
import { clearPixels, type Pixels, paste } from "@caravan/core/raster";
import { t } from "@caravan/core/words";

const TILE = 4096; // px: every WebGL 2 device supports textures of this side
const EXACT = { premultiplyAlpha: "none", colorSpaceConversion: "none" } as const;

/** Throws `not-a-picture` if the browser cannot read it, or `unsupported` if it hands out other colours than it decodes. */
export async function pixelsOfStill(blob: Blob, where: string): Promise<Pixels> {
  let whole: ImageBitmap;
  try {
    whole = await createImageBitmap(blob, EXACT);
  } catch (cause) {
    throw new CaravanError(
      "not-a-picture",
      where,
      t("Neither Caravan nor this browser can read it as a picture."),
      t("Save it as PNG, or take another copy if it should be a picture."),
      { cause },
    );
  }
  await refuseChangedColours(where);
  const { width, height } = whole;
  const out = clearPixels(width, height);
  for (let y = 0; y < height; y += TILE)
    for (let x = 0; x < width; x += TILE) {
      const w = Math.min(TILE, width - x);
      const h = Math.min(TILE, height - y);
      const part = width <= TILE && height <= TILE ? whole : await createImageBitmap(blob, x, y, w, h, EXACT);
      paste(out, readBack(part, w, h), { x: 0, y: 0, w, h }, x, y);
    }
  return out;
}

/** px: protection changes few pixels, so that many are tried. */
const TRIED = 256;

let isExact = false;

/**
 * Some browsers and extensions change some of the colours that a page reads, so that nobody is recognised by how their machine draws.
 * Throws `unsupported` then: art would come in with pixels that nobody drew.
 */
export async function refuseChangedColours(where: string): Promise<void> {
  // Asked again after a refusal: it may be allowed meanwhile.
  isExact ||= await readsExactly();
  if (isExact) return;
  throw new CaravanError(
    "unsupported",
    where,
    t("This browser changes colours that pages read, as a protection against being recognised: the picture would not come in as drawn."),
    t("Allow this address to read canvases, or save the picture as PNG, which is read without the browser."),
  );
}

/** Whether a picture of many colours and opacities comes back as it went. */
async function readsExactly(): Promise<boolean> {
  const bytes = new Uint8ClampedArray(TRIED * TRIED * 4);
  for (let k = 0; k < bytes.length; k++) bytes[k] = ((k * 2_654_435_761) >>> 13) & 255;
  const bitmap = await createImageBitmap(new ImageData(bytes, TRIED, TRIED), EXACT);
  const back = readBack(bitmap, TRIED, TRIED).bytes;
  bitmap.close();
  return bytes.every((byte, k) => byte === back[k]);
}

let canvas: OffscreenCanvas | null = null;

/** The pixels of a bitmap that was made without premultiplying, exactly. */
export function readBack(bitmap: ImageBitmap, width: number, height: number): Pixels {
  canvas ??= new OffscreenCanvas(1, 1);
  const gl = canvas.getContext("webgl2");
  if (!gl) throw new Error("This browser offers no WebGL 2, which reading such pictures exactly needs");
  gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, false);
  gl.pixelStorei(gl.UNPACK_COLORSPACE_CONVERSION_WEBGL, gl.NONE);
  const texture = gl.createTexture();
  gl.bindTexture(gl.TEXTURE_2D, texture);
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, bitmap);
  const frame = gl.createFramebuffer();
  gl.bindFramebuffer(gl.FRAMEBUFFER, frame);
  gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, texture, 0);
  const bytes = new Uint8Array(width * height * 4);
  gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, bytes);
  gl.deleteFramebuffer(frame);
  gl.deleteTexture(texture);
  return { width, height, bytes };
}
