import './noEval';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { ProblemError } from './api';
import { App } from './app';
import { askAhead } from './askAhead';
import { watchAttendance } from './attended';
import { startTheme } from './shell/theme';
import './styles.css';

/** Milliseconds for which the page waits for what it begins with. */
const SOON = 100;

// Styles that dialogs make while they are open are taken by this word only.
setNonce(document.querySelector<HTMLMetaElement>('meta[name=style-nonce]')?.content ?? '');
startTheme();
watchAttendance();
/** A session that has ended leads back to sign-in, whatever was being asked. */
const signedOut = (error: unknown): void => {
  if (error instanceof ProblemError && error.problem.status === 401) queries.setQueryData(['me'], null);
};
const queries = new QueryClient({
  queryCache: new QueryCache({ onError: signedOut }),
  mutationCache: new MutationCache({ onError: signedOut }),
  defaultOptions: { queries: { retry: 1, staleTime: 5_000, refetchOnWindowFocus: true } },
});

const begin = (): void =>
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
// What is known at once is drawn at once, and not what is said until it is.
const soon = new Promise((resolve) => setTimeout(resolve, SOON));
void Promise.race([askAhead(queries, window.location), soon]).finally(begin);
