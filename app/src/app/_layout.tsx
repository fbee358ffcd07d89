import '../ui/fonts.css';
import { useEffect, useState } from 'react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { Slot } from 'expo-router';
import { TamaguiProvider, Theme } from '@tamagui/core';
import { wordsFor } from '@hovlix/core/problem';
import { takeStatus } from '../data/queries';
import { Failure } from '../features/shell/Failure';
import { Shell } from '../features/shell/Shell';
import { hovlix, HovlixProvider } from '../host/hovlix';
import { keepApp } from '../host/offline/keep-app';
import { useSession } from '../host/session';
import { config } from '../ui/tamagui.config';
import { DAY, NIGHT } from '../ui/tokens';

// Once for the page, and before its first picture, which React may begin more than once: store and conductor answer while
// it is being made.
const app = hovlix();
const started = app.start();

export default function Layout() {
  const [queries] = useState(
    () =>
      new QueryClient({
        defaultOptions: { queries: { networkMode: 'always', retry: 1, refetchOnWindowFocus: false } },
      }),
  );
  const theme = useSession((session) => session.theme);
  const say = useSession((session) => session.say);
  useEffect(() => app.conducting.onStatus((status) => takeStatus(queries, status)), [queries]);
  useEffect(() => {
    void started.then((problem) => {
      if (problem) say(wordsFor(problem), { tone: 'bad' });
      keepApp();
    });
  }, [say]);
  useEffect(() => {
    window.document.body.style.backgroundColor = (theme === 'night' ? NIGHT : DAY).ground;
    window.document.documentElement.style.colorScheme = theme === 'night' ? 'dark' : 'light';
  }, [theme]);
  return (
    <TamaguiProvider config={config} defaultTheme="dark">
      <Theme name={theme === 'night' ? 'dark' : 'light'}>
        <QueryClientProvider client={queries}>
          <HovlixProvider value={app}>
            <Shell>
              <Slot unstable_screenErrorBoundary={Failure} />
            </Shell>
          </HovlixProvider>
        </QueryClientProvider>
      </Theme>
    </TamaguiProvider>
  );
}
