/**
 * A canvas as large as it is shown, in the pixels of the screen; drawn on in CSS pixels. To ask the page for its size
 * makes it lay out anew, which costs: whoever knows the size says it.
 */
export function sized(
  canvas: HTMLCanvasElement,
  width = canvas.clientWidth,
  height = canvas.clientHeight,
): CanvasRenderingContext2D | null {
  const scale = Math.min(2, window.devicePixelRatio || 1);
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  const context = canvas.getContext('2d');
  context?.setTransform(scale, 0, 0, scale, 0, 0);
  return context;
}
