import { config } from 'zod';

// The page's policy lets nothing be compiled from a text: it is not tried, which would be one violation of it a page.
config({ jitless: true });
