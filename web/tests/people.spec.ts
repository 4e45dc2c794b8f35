import { mount } from "@vue/test-utils";
import { beforeEach, expect, test, vi } from "vitest";
import { defineComponent, h } from "vue";
import { createMemoryHistory, createRouter } from "vue-router";
import InvitedPage from "../src/app/InvitedPage.vue";
import NewPasswordPage from "../src/app/NewPasswordPage.vue";
import PasswordDialog from "../src/app/PasswordDialog.vue";
import PeopleDialog from "../src/app/PeopleDialog.vue";
import { initials, people, useOthers, whereabouts } from "../src/app/presence";
import SignIn from "../src/app/SignIn.vue";
import TokensDialog from "../src/app/TokensDialog.vue";
import { useSession } from "../src/document/session";
import { useDocument } from "../src/document/store";
import { asked, plug, refused, settled } from "./server";

/** The field of a label; the component library draws a label twice, one of them for the eye alone. */
const field = (label: string) =>
  [...document.querySelectorAll("label")]
    .filter((one) => one.textContent === label && one.hasAttribute("for"))
    .map((one) => document.getElementById(one.getAttribute("for")!) as HTMLInputElement | null)
    .find((one) => one !== null)!;
async function type(label: string, text: string): Promise<void> {
  const input = field(label);
  input.value = text;
  input.dispatchEvent(new Event("input"));
  await settled(3);
}
const button = (text: string) =>
  [...document.querySelectorAll<HTMLButtonElement>("button")].find(
    (one) => one.textContent!.trim() === text,
  )!;
async function press(text: string): Promise<void> {
  button(text).click();
  await settled();
}
async function send(): Promise<void> {
  document.querySelector("form")!.dispatchEvent(new Event("submit"));
  await settled();
}
const said = () => document.body.textContent!;

beforeEach(() => {
  const doc = useDocument();
  doc.projectId = "p";
});

test("signing in: the name without its blanks, and what is wrong is said", async () => {
  plug({ "POST /api/sign-in": refused(401, "Name or password is wrong.", "sign_in") });
  const page = mount(SignIn, { attachTo: document.body });
  expect(button("Sign in").disabled).toBe(true);
  await type("Name", " Edda ");
  await type("Password", "a long phrase");
  await send();
  expect(asked[0]!.body).toEqual({ name: "Edda", password: "a long phrase" });
  expect(said()).toContain("Name or password is wrong.");
  expect(field("Password").value).toBe("");
  plug({
    "POST /api/sign-in": { user: "Edda" },
    "GET /api/session": { user: "Edda", staff: false, projects: [] },
  });
  await type("Password", "the right one");
  await send();
  expect(page.emitted("done")).toHaveLength(1);
});

test("a forgotten password is asked for by name, and nothing tells whether there is such an account", async () => {
  plug({ "POST /api/password/forgotten": { status: 204 } });
  mount(SignIn, { attachTo: document.body });
  await press("Password forgotten");
  expect(said()).toContain("Type your name or mail address first.");
  expect(asked).toEqual([]);
  await type("Name", "edda@example.org ");
  await press("Password forgotten");
  expect(asked[0]!.body).toEqual({ name: "edda@example.org" });
  expect(said()).toContain("If there is such an account");
  plug({ "POST /api/password/forgotten": refused(429, "Too often: try again in 15 minutes.", "too_often") });
  await press("Password forgotten");
  expect(said()).toContain("Too often");
  expect(said()).not.toContain("If there is such an account");
});

test("a link for a new password: weak ones are refused, then it is set", async () => {
  plug({ "POST /api/password/by-link": refused(422, "New password: too short.") });
  mount(NewPasswordPage, { props: { person: "MQ", token: "t-1" }, attachTo: document.body });
  expect(button("Set password").disabled).toBe(true);
  await type("New password", "short");
  await send();
  expect(said()).toContain("too short");
  plug({ "POST /api/password/by-link": { status: 204 } });
  await type("New password", "a longer phrase 9");
  await send();
  expect(asked.at(-1)!.body).toEqual({ person: "MQ", token: "t-1", new: "a longer phrase 9" });
  expect(said()).toContain("It is set.");
  expect(button("Set password")).toBeUndefined();
});

const INVITED = { project: "Craft Hall", role: "reader", address: "r@example.org", by: "Edda", user: "" };

test("an invitation makes an account for who has none", async () => {
  const assign = vi.spyOn(window.location, "assign").mockImplementation(() => {});
  plug({
    "GET /api/invited/tok": INVITED,
    "POST /api/invited/tok": refused(422, "Name 'Rasmus' is taken; choose another one."),
  });
  mount(InvitedPage, { props: { token: "tok" }, attachTo: document.body });
  await settled();
  expect(said()).toContain("Edda asks you to read this project.");
  await type("Name", "Rasmus");
  await type("Password", "a longer phrase 9");
  await send();
  expect(said()).toContain("is taken");
  expect(assign).not.toHaveBeenCalled();
  plug({ "POST /api/invited/tok": { id: "p9", user: "Rasmus H" } });
  await type("Name", "Rasmus H");
  await send();
  expect(asked.at(-1)!.body).toEqual({ name: "Rasmus H", password: "a longer phrase 9" });
  expect(assign).toHaveBeenCalledWith("/p9/loads");
  assign.mockRestore();
});

test("who has an account signs in on the same page and comes in as that", async () => {
  const assign = vi.spyOn(window.location, "assign").mockImplementation(() => {});
  plug({
    "GET /api/invited/tok": INVITED,
    "POST /api/sign-in": refused(401, "Name or password is wrong.", "sign_in"),
    "GET /api/session": { user: "Rasmus", staff: false, projects: [] },
    "POST /api/invited/tok": { id: "p9", user: "Rasmus" },
  });
  mount(InvitedPage, { props: { token: "tok" }, attachTo: document.body });
  await settled();
  await press("I have an account");
  await type("Name", "Rasmus");
  await type("Password", "wrong");
  await send();
  expect(said()).toContain("Name or password is wrong.");
  expect(asked.some((one) => one.method === "POST" && one.path === "/api/invited/tok")).toBe(false);
  plug({ "POST /api/sign-in": { user: "Rasmus" } });
  await send();
  expect(asked.at(-1)!.body).toEqual({ name: "", password: "" });
  expect(assign).toHaveBeenCalledWith("/p9/loads");
  assign.mockRestore();
});

test("who is signed in comes in as that, and a link that does not count says so", async () => {
  const assign = vi.spyOn(window.location, "assign").mockImplementation(() => {});
  plug({
    "GET /api/invited/tok": { ...INVITED, role: "editor", user: "Rasmus" },
    "POST /api/invited/tok": { id: "p9", user: "Rasmus" },
  });
  const page = mount(InvitedPage, { props: { token: "tok" }, attachTo: document.body });
  await settled();
  expect(said()).toContain("work in this project");
  expect(said()).toContain("You are signed in as Rasmus.");
  await send();
  expect(asked.at(-1)!.body).toEqual({ name: "", password: "" });
  assign.mockRestore();
  page.unmount();
  plug({
    "GET /api/invited/old": refused(
      404,
      "This invitation does not count any more; ask for a new one.",
      "not_found",
    ),
  });
  mount(InvitedPage, { props: { token: "old" }, attachTo: document.body });
  await settled();
  expect(said()).toContain("does not count any more");
  expect(button("Come in")).toBeUndefined();
});

test("people of a project: by account, by mail address, withdrawn", async () => {
  const owner = { name: "Edda", role: "owner" };
  plug({
    "GET /api/projects/p/people": [owner],
    "GET /api/projects/p/invitations": [
      { address: "old@example.org", role: "reader", created: "2026-01-01T00:00:00Z" },
    ],
    "PUT /api/projects/p/people": [owner, { name: "Rasmus", role: "editor" }],
    "DELETE /api/projects/p/people/Rasmus": [owner],
    "POST /api/projects/p/invitations": refused(422, "Mail address 'a@b': this is no mail address."),
    "DELETE /api/projects/p/invitations/old%40example.org": [],
  });
  mount(PeopleDialog, { attachTo: document.body });
  await settled();
  expect(said()).toContain("owns it");
  expect(said()).toContain("invited, reads then");
  await type("Account or mail address", "Rasmus");
  expect(button("Add")).toBeDefined();
  await send();
  expect(asked.at(-1)!.body).toEqual({ name: "Rasmus", role: "editor" });
  expect(said()).toContain("Rasmus");
  expect(field("Account or mail address").value).toBe("");
  // An @ makes it an invitation; what is refused stays to be mended.
  await type("Account or mail address", "a@b");
  expect(button("Invite")).toBeDefined();
  await send();
  expect(said()).toContain("no mail address");
  expect(field("Account or mail address").value).toBe("a@b");
  const withdraw = [...document.querySelectorAll("button")].filter(
    (one) => one.textContent!.trim() === "Withdraw",
  );
  withdraw[1]!.click();
  await settled();
  expect(said()).not.toContain("old@example.org");
  withdraw[0]!.click();
  await settled();
  expect(said()).not.toContain("Rasmus");
});

test("a new password closes the dialog, a wrong one stays with the reason", async () => {
  plug({ "POST /api/password": refused(422, "The present password is wrong.") });
  const dialog = mount(PasswordDialog, { attachTo: document.body });
  await type("Present password", "old");
  await type("New password", "another long phrase 8");
  await send();
  expect(said()).toContain("The present password is wrong.");
  expect(dialog.emitted("close")).toBeUndefined();
  plug({ "POST /api/password": { status: 204 } });
  await send();
  expect(asked.at(-1)!.body).toEqual({ old: "old", new: "another long phrase 8" });
  expect(dialog.emitted("close")).toHaveLength(1);
});

test("a token is shown once and withdrawn", async () => {
  const row = { id: 7, name: "nightly", created: "2026-01-02T03:04:05Z", used: null };
  let rows: unknown[] = [];
  plug({
    "GET /api/tokens": () => rows,
    "POST /api/tokens": () => ((rows = [row]), { ...row, token: "pendrum_abc" }),
    "DELETE /api/tokens/7": () => ((rows = []), { status: 204 }),
  });
  mount(TokensDialog, { attachTo: document.body });
  await settled();
  expect(said()).toContain("No token yet.");
  await type("New token for", " nightly ");
  await send();
  expect(asked.find((one) => one.method === "POST")!.body).toEqual({ name: "nightly" });
  expect(said()).toContain("pendrum_abc");
  expect(said()).toContain("2026-01-02 03:04");
  expect(said()).toContain("never");
  await press("Withdraw");
  expect(said()).not.toContain("pendrum_abc");
  expect(said()).toContain("No token yet.");
});

test("initials and whereabouts", () => {
  expect(["Edda", "Rasmus Holt", "demo-engineer", "x", ""].map(initials)).toEqual([
    "ED",
    "RH",
    "DE",
    "X",
    "",
  ]);
  const windows = [
    { name: "Edda", stage: "air" },
    { name: "Rasmus", stage: "loads" },
    { name: "Edda", stage: "kit" },
    { name: "Tove", stage: "nowhere" },
  ];
  expect(people(windows, "Rasmus").map(whereabouts)).toEqual(["Edda: on Air, Kit", "Tove"]);
  expect(people(windows.slice(1, 2), "Rasmus")).toEqual([]);
});

test("a window says which stage it shows, and without an answer nobody is here", async () => {
  plug({ "POST /api/projects/p/here": [{ name: "Rasmus", stage: "air" }] });
  useSession().user = "Edda";
  const page = { template: "" };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: "/loads", name: "loads", component: page }, { path: "/air", name: "air", component: page }],
  }); // prettier-ignore
  await router.push("/loads");
  let others: ReturnType<typeof useOthers> | undefined;
  const made = mount(
    defineComponent({
      setup() {
        others = useOthers();
        return () => h("p");
      },
    }),
    { global: { plugins: [router] } },
  );
  await settled();
  expect(others!.value).toEqual([{ name: "Rasmus", stages: ["Air"] }]);
  plug({ "POST /api/projects/p/here": refused(503, "Busy", "busy") });
  await router.push("/air");
  await settled();
  expect(asked.map((one) => one.body.stage)).toEqual(["loads", "air"]);
  expect(new Set(asked.map((one) => one.body.window)).size).toBe(1);
  expect(others!.value).toEqual([]);
  made.unmount();
});
