import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { watchForFailures } from '../state/failures.ts';
import { App } from './app.tsx';

watchForFailures();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
