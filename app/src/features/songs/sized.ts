/** A canvas as large as it is shown, in the pixels of the screen; drawn on in CSS pixels. */
export function sized(canvas: HTMLCanvasElement): CanvasRenderingContext2D | null {
  const scale = Math.min(2, window.devicePixelRatio || 1);
  canvas.width = Math.round(canvas.clientWidth * scale);
  canvas.height = Math.round(canvas.clientHeight * scale);
  const context = canvas.getContext('2d');
  context?.setTransform(scale, 0, 0, scale, 0, 0);
  return context;
}
