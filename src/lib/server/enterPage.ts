import { createHash } from 'node:crypto';

const STYLE = `
:root { color-scheme: light dark; font: 1.0625rem/1.5 system-ui, sans-serif; }
body { margin: 0; min-height: 100dvh; display: grid; place-items: center; }
form { display: grid; gap: 0.75rem; width: min(22rem, 100vw - 3rem); }
h1 { font-size: 1.25rem; margin: 0; }
label { display: grid; gap: 0.25rem; font-weight: 600; }
input, button { font: inherit; padding: 0.5rem 0.75rem; border: 1px solid; border-radius: 0.375rem; }
button { font-weight: 600; cursor: pointer; }
p { margin: 0; }
`;
const POLICY = [
  "default-src 'none'",
  `style-src 'sha256-${createHash('sha256').update(STYLE).digest('base64')}'`,
  "form-action 'self'",
  "base-uri 'none'",
  "frame-ancestors 'none'"
].join('; ');

/**
 * The page that asks for the password, with nothing of the application in it.
 * @param problem what was wrong with the last try, or empty
 */
export const enterPage = (problem: string): { html: string; policy: string } => ({
  policy: POLICY,
  html: `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Sign in - Swift Twin</title>
<style>${STYLE}</style>
</head>
<body>
<form method="post" action="/enter">
<h1>Swift Twin</h1>
<label>Password <input type="password" name="password" autocomplete="current-password" required autofocus${problem ? ' aria-describedby="problem" aria-invalid="true"' : ''}></label>
${problem ? `<p id="problem" role="alert">${problem}</p>` : ''}
<button>Sign in</button>
</form>
</body>
</html>`
});
