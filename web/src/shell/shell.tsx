import { DropdownMenu } from "radix-ui";
import { type ReactNode, useState } from "react";
import { Link, NavLink } from "react-router";
import { useMe } from "@/api/queries";
import { UnsentElsewhere } from "@/outbox/unsent";
import { DownIcon } from "@/ui/icons";
import { landmark } from "@/ui/landmark";
import { choosePad, type PadShown, usePadChoice } from "@/ui/tape-pad/pad-choice";
import { chooseLanguage } from "@/words/kept-words";
import { chosenLanguage, LANGUAGES, type Language } from "@/words/language";
import { t } from "@/words/shell";
import { Help } from "./help";
import { Keys } from "./keys";
import { NoNetwork } from "./no-network";
import { CREW_PAGES, CREW_TABS, type Tab } from "./pages";
import { ServerAway } from "./server-away";
import { SigningOut } from "./signing-out";
import { rememberedTheme, rememberTheme, type Theme } from "./theme";
import { useTitle } from "./title";
import { toTheWork } from "./to-the-work";
import { Tour } from "./tour";
import { startTour } from "./tour-place";
import { Wordmark } from "./wordmark";
import { WrongClock } from "./wrong-clock";

const THEMES: { value: Theme; label: string }[] = [
  { value: "light", label: t("look.light") },
  { value: "dark", label: t("look.dark") },
  { value: "system", label: t("look.device") },
];

const PADS: { value: PadShown; label: string }[] = [
  { value: "device", label: t("pad.device") },
  { value: "always", label: t("pad.always") },
  { value: "never", label: t("pad.never") },
];

interface Props {
  /** What the browser's tab says of this page. */
  title: string;
  trail?: ReactNode;
  tabs?: Tab[];
  state?: ReactNode;
  children: ReactNode;
}

/** The frame of every page: where we are, the views, whether it is saved, who is signed in. */
export function Shell({ title, trail, tabs = CREW_TABS, state, children }: Props) {
  useTitle(title);
  const [helping, setHelping] = useState(false);
  return (
    <div className="flex min-h-dvh flex-col">
      <button
        type="button"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:m-1 focus:rounded-md focus:border focus:border-ink focus:bg-paper focus:px-4 focus:py-2"
        onClick={() => toTheWork()}
      >
        {t("frame.skip")}
      </button>
      <header className="flex items-center gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-1.5 max-sm:gap-x-1 max-sm:px-2 sm:flex-wrap print:hidden">
        <Link to="/" aria-label={t("frame.home")}>
          <Wordmark />
        </Link>
        <div className="min-w-0 truncate text-soft max-sm:sr-only">{trail}</div>
        {tabs.length > 0 && (
          <nav
            aria-label={t("frame.views")}
            className="flex min-w-0 gap-1 max-sm:grow max-sm:gap-0 max-sm:overflow-x-auto sm:ml-auto"
          >
            {tabs.map((tab) => (
              <NavLink
                key={tab.label}
                to={tab.to}
                end={tab.to === "/"}
                data-onward={tab.onward}
                className={({ isActive }) =>
                  `flex min-h-10 items-center border-b-4 px-3 text-[17px] font-semibold max-sm:px-1.5 max-sm:text-base ${isActive ? "border-accent text-ink" : "border-transparent text-soft hover:text-ink"}`
                }
              >
                {tab.label}
              </NavLink>
            ))}
          </nav>
        )}
        <div
          className={`flex shrink-0 items-center gap-3 max-sm:gap-1 ${tabs.length ? "max-lg:ml-auto" : "ml-auto"}`}
        >
          <UnsentElsewhere />
          {state}
          <PersonMenu onHelp={() => setHelping(true)} />
        </div>
      </header>
      <ServerAway />
      <WrongClock />
      <NoNetwork />
      <Tour />
      <Help asked={helping} onClose={() => setHelping(false)} />
      <Keys />
      {children}
    </div>
  );
}

const initials = (name: string): string =>
  name
    .split(" ")
    .map((part) => part[0] ?? "")
    .join("")
    .slice(0, 2);

function PersonMenu({ onHelp }: { onHelp: () => void }) {
  const me = useMe();
  const [open, setOpen] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [theme, setTheme] = useState<Theme>(rememberedTheme);
  const pad = usePadChoice();
  if (!me.data) return null;

  return (
    <>
      <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
        <DropdownMenu.Trigger className="inline-flex min-h-10 items-center gap-1 rounded-md px-2 font-medium hover:bg-well">
          <span className="max-sm:sr-only">{me.data.name}</span>
          <span aria-hidden="true" className="font-semibold sm:hidden">
            {initials(me.data.name)}
          </span>{" "}
          <DownIcon width={14} height={14} className="max-sm:hidden" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal container={landmark()}>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            collisionPadding={8}
            className="z-50 max-h-(--radix-dropdown-menu-content-available-height) min-w-64 overflow-auto rounded-md border border-ink bg-paper p-1 shadow-lg"
          >
            <DropdownMenu.Label className="px-3 py-2 text-[15px] text-soft">
              {me.data.crew} · {me.data.role}
            </DropdownMenu.Label>
            <DropdownMenu.RadioGroup
              value={theme}
              onValueChange={(next) => {
                setTheme(next as Theme);
                rememberTheme(next as Theme);
              }}
            >
              {THEMES.map((choice) => (
                <Radio key={choice.value} value={choice.value}>
                  {choice.label}
                </Radio>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.Label className="px-3 pt-1 text-[15px] text-soft">
              {t("menu.pad")}
            </DropdownMenu.Label>
            <DropdownMenu.RadioGroup
              value={pad.shown}
              onValueChange={(next) => choosePad({ shown: next as PadShown })}
            >
              {PADS.map((one) => (
                <Radio key={one.value} value={one.value}>
                  {one.label}
                </Radio>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.RadioGroup
              value={chosenLanguage()}
              onValueChange={(next) => void chooseLanguage(next as Language)}
            >
              {LANGUAGES.map((one) => (
                <Radio key={one.value} value={one.value} lang={one.value}>
                  {one.label}
                </Radio>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            {CREW_PAGES.map((page) => (
              <DropdownMenu.Item key={page.to} asChild>
                <Link
                  to={page.to}
                  className="flex min-h-10 items-center rounded-sm px-3 no-underline outline-none data-highlighted:bg-tint"
                >
                  {page.label}
                </Link>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item
              onSelect={onHelp}
              className="flex min-h-10 items-center rounded-sm px-3 outline-none data-highlighted:bg-tint"
            >
              {t("frame.help")}
            </DropdownMenu.Item>
            <DropdownMenu.Item asChild onSelect={startTour}>
              <Link
                to="/"
                className="flex min-h-10 items-center rounded-sm px-3 no-underline outline-none data-highlighted:bg-tint"
              >
                {t("tour.begin")}
              </Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item
              onSelect={() => setLeaving(true)}
              className="flex min-h-10 items-center rounded-sm px-3 outline-none data-highlighted:bg-tint"
            >
              {t("sign_out")}
            </DropdownMenu.Item>
            <DropdownMenu.Label className="px-3 py-1.5 text-[15px] text-soft">
              Crelda {__VERSION__}
            </DropdownMenu.Label>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {leaving && <SigningOut onStay={() => setLeaving(false)} />}
    </>
  );
}

function Radio({ value, lang, children }: { value: string; lang?: string; children: ReactNode }) {
  return (
    <DropdownMenu.RadioItem
      value={value}
      lang={lang}
      className="flex min-h-10 items-center justify-between rounded-sm px-3 outline-none data-highlighted:bg-tint"
    >
      {children}
      <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
    </DropdownMenu.RadioItem>
  );
}
