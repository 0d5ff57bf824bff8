/** Frame of a page: logo, name, navigation or title, menu. */
import { useState, type ReactNode } from "react";
import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import { useEnter, useSession } from "../api/session";
import { useTanks } from "../api/tanks";
import { Button, MenuBox, phone } from "../kit";
import { GuestNote } from "./GuestNote";
import { HeldNote } from "./HeldNote";
import { LongSums } from "./LongComputations";
import { useHeld } from "../api/useOutbox";
import { LOCALE } from "../quantity/locale";

interface PageProps {
  name?: string;
  nav?: ReactNode;
  children: ReactNode;
}

export function Page({ name, nav, children }: PageProps) {
  return (
    <>
      <Skip href="#work">To the work</Skip>
      <Top>
        <Home to="/today" aria-label="Reedmace, to Today">
          <svg viewBox="0 0 20 32" width="17" height="27" aria-hidden="true">
            <path
              d="M10 31V2M10 31C4 26 2 19 3 12M10 31c5-4 7-9 7-15"
              stroke="var(--reed)"
              strokeWidth="2"
              fill="none"
              strokeLinecap="round"
            />
            <rect x="6.6" y="6" width="6.8" height="12" rx="3.4" fill="var(--seed)" />
          </svg>
          Reedmace
        </Home>
        {name && <TankMenu name={name} />}
        <Navward>{nav}</Navward>
        <LongSums />
        <KeeperMenu />
      </Top>
      <HeldNote />
      <GuestNote />
      <Main id="work" tabIndex={-1}>
        {children}
      </Main>
    </>
  );
}

/** Shown when a page could not be refreshed: the age of its figures. */
export function AsOf({ atMs }: { atMs: number }) {
  return (
    <p role="status">
      No connection. These are the figures of{" "}
      {new Date(atMs).toLocaleString(LOCALE, { weekday: "short", hour: "2-digit", minute: "2-digit" })}; what
      you log is kept here and sent later.
    </p>
  );
}

function TankMenu({ name }: { name: string }) {
  const tanks = useTanks();
  return (
    <MenuTrigger>
      <NameButton aria-label={`Tank: ${name}. Choose another`}>
        {name} <span aria-hidden="true">▾</span>
      </NameButton>
      <MenuBox>
        <Menu aria-label="Tanks">
          {[
            ...(tanks.data?.tanks ?? []).map((t) => (
              <MenuItem key={t.id} href={`/tanks/${t.id}/tank`} textValue={t.name}>
                {t.name}
              </MenuItem>
            )),
            <MenuItem key="today" href="/today" textValue="Today">
              Today, and a new tank
            </MenuItem>,
          ]}
        </Menu>
      </MenuBox>
    </MenuTrigger>
  );
}

function KeeperMenu() {
  const session = useSession();
  const enter = useEnter();
  const navigate = useNavigate();
  const unsent = useHeld().length;
  const [asking, setAsking] = useState(false);
  if (!session.data?.signed_in) return null;
  const signOut = async () => {
    setAsking(false);
    enter(await ask(client.DELETE("/api/session")));
    await navigate("/");
  };
  if (asking)
    return (
      <Asked role="alertdialog" aria-label="Sign out">
        {unsent === 1 ? "One entry is" : `${unsent} entries are`} not sent yet. They stay on this device, for
        your next sign-in here.
        <Button onPress={() => void signOut()}>Sign out all the same</Button>
        <Button
          $quiet
          onPress={() => {
            setAsking(false);
          }}
        >
          Stay
        </Button>
      </Asked>
    );
  return (
    <MenuTrigger>
      <NameButton aria-label="Menu">
        <svg width="20" height="16" viewBox="0 0 20 16" aria-hidden="true">
          <path d="M1 2h18M1 8h18M1 14h18" stroke="currentColor" strokeWidth="2" />
        </svg>
      </NameButton>
      <MenuBox placement="bottom end">
        <Menu aria-label="Keeper">
          <MenuItem href="/today">Today</MenuItem>
          <MenuItem href="/rooms">Rooms</MenuItem>
          <MenuItem href="/broods">Broods</MenuItem>
          <MenuItem href="/month">The month</MenuItem>
          <MenuItem href="/shelf">Your shelf</MenuItem>
          <MenuItem href="/counter">Does this box do?</MenuItem>
          <MenuItem href="/kinds">Kinds of filter</MenuItem>
          <MenuItem href="/practice">Practice</MenuItem>
          <MenuItem href="/reminders">Reminders</MenuItem>
          <MenuItem href="/account">Account</MenuItem>
          <MenuItem onAction={turnTheme}>Light or dark</MenuItem>
          <MenuItem href="/help">Help</MenuItem>
          <MenuItem
            onAction={() => {
              if (unsent) setAsking(true);
              else void signOut();
            }}
          >
            Sign out
          </MenuItem>
        </Menu>
      </MenuBox>
    </MenuTrigger>
  );
}

/** Switch between light and dark, and store the choice. */
function turnTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme
    ? root.dataset.theme === "dark"
    : matchMedia("(prefers-color-scheme: dark)").matches;
  root.dataset.theme = dark ? "light" : "dark";
  localStorage.setItem("reedmace.theme", root.dataset.theme);
}
const kept = localStorage.getItem("reedmace.theme");
if (kept === "light" || kept === "dark") document.documentElement.dataset.theme = kept;

const Skip = styled.a`
  position: absolute;
  left: 8px;
  top: -60px;
  background: var(--ink);
  color: var(--on-ink);
  padding: 8px 12px;
  z-index: 30;
  &:focus {
    top: 8px;
  }
`;
const Top = styled.header`
  position: relative;
  display: flex;
  align-items: center;
  gap: 4px 14px;
  padding: 8px 26px 0;
  max-width: 1400px;
  margin: 0 auto;
  ${phone} {
    padding: 6px 12px 0;
    flex-wrap: wrap;
    > :last-child {
      margin-left: auto;
    }
  }
`;
const Home = styled(Link)`
  display: flex;
  align-items: center;
  gap: 8px;
  font:
    600 1.375rem Vollkorn,
    serif;
  color: var(--ink);
  text-decoration: none;
  min-height: 44px;
`;
const NameButton = styled(AriaButton)`
  background: none;
  border: 0;
  min-height: 44px;
  min-width: 44px;
  padding: 4px 8px;
  font:
    italic 400 1.125rem Vollkorn,
    serif;
  color: var(--ink-soft);
  cursor: pointer;
  white-space: nowrap;
`;
const Navward = styled.div`
  flex: 1;
  min-width: 0;
  ${phone} {
    order: 5;
    flex: 1 0 100%;
  }
`;
const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 6px 10px;
  background: var(--seed-fill);
`;
const Main = styled.main`
  max-width: 1400px;
  margin: 0 auto;
  padding: 12px 26px 22px;
  outline: none;
  ${phone} {
    padding: 8px 14px 40px;
  }
`;
