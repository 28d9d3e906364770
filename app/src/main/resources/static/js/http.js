// The one way to the server: its form token, its refusals in its words.
export const token = document.querySelector("meta[name=csrf]")?.content;

/** What the server said no to, in its words; anything else is a lost connection. */
export class Problem extends Error {}

const inWords = (problem) => [problem.detail, problem.remedy].filter(Boolean).join(" ");
const refusal = (problem) => Object.assign(new Problem(inWords(problem)), { code: problem.code });

/** Asks a page's own address; gives what it answers as an object. */
export async function ask(method, url, body) {
  const answer = await fetch(url, { method, headers: { "X-CSRF-TOKEN": token }, body });
  if (answer.ok && !answer.redirected) return answer.json();
  if (answer.status === 409 || answer.status === 404) throw refusal(await answer.json());
  if (answer.redirected || answer.status === 401 || answer.status === 403) {
    throw new Problem("Your session has ended. Sign in again; what was sent so far is kept for a day.");
  }
  throw new Error(`status ${answer.status}`);
}

/** Asks the interface for programs, with the session of this page. */
export async function api(method, path, body) {
  const headers = { "X-CSRF-TOKEN": token, "Idempotency-Key": crypto.randomUUID() };
  if (body) headers["Content-Type"] = "application/json";
  let answer;
  try {
    answer = await fetch(`/api/v1${path}`, { method, headers, body: body && JSON.stringify(body) });
  } catch {
    throw new Problem("The shelf cannot be reached. Nothing was done; try again when the connection is back.");
  }
  if (answer.ok) return answer.status === 204 ? null : answer.json();
  const problem = await answer.json().catch(() => ({}));
  throw new Problem(inWords(problem) || `The shelf answered ${answer.status}. Nothing was done.`);
}

/** Sends bytes beside the page; gives the answer, whatever it is. */
export const sendBytes = (url, type, body) => fetch(url, { method: "POST", body, headers: { "Content-Type": type, "X-CSRF-TOKEN": token } });

/** Posts a form that is not on the page, and goes where it leads. */
export function post(action, fields) {
  const form = document.createElement("form");
  form.method = "post";
  form.action = action;
  Object.entries({ _csrf: token, ...fields }).forEach(([name, value]) => [value].flat().forEach((one) => {
    const field = document.createElement("input");
    Object.assign(field, { type: "hidden", name, value: one });
    form.append(field);
  }));
  document.body.append(form);
  form.submit();
}
