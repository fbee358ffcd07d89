// The keys for play and pause, on a keyboard or a headset: left to the browser, they would stop the sound and not the light.

type Does = { readonly play: () => void; readonly pause: () => void };

/** @returns tells the device what plays, as it shows it on its lock screen. */
export function mediaKeys({
  play,
  pause,
}: Does): (song: { readonly title: string; readonly by: string } | undefined, plays: boolean) => void {
  const session = (navigator as { readonly mediaSession?: MediaSession }).mediaSession;
  if (!session) return () => undefined;
  session.setActionHandler('play', play);
  session.setActionHandler('pause', pause);
  session.setActionHandler('stop', pause);
  return (song, plays) => {
    session.metadata = song ? new MediaMetadata({ title: song.title, artist: song.by }) : null;
    session.playbackState = song ? (plays ? 'playing' : 'paused') : 'none';
  };
}
