import { compile } from '../access/compile';
import { EDIT, NONE, SEE, type Level } from '../access/level';
import type { Rule } from '../access/rule';
import { SIGNED_IN, SIGNED_OUT, viewerOfRole, type Circumstances, type Viewer } from '../access/viewer';
import type { Definition, Role } from '../model/definition';
import type { Line, What, Who } from '../model/gate';
import type { Id } from '../model/id';
import { isDataDoor, withIncluded } from '../model/tree';
import { sameJson } from '../model/same-json';
import { newLine } from './make';

/**
 * The lines that a follower starts with, so that giving it lines changes nothing yet. One that follows
 * its container starts with "everyone: edit". A door of data follows the screens, and starts with what
 * the screens give to each login state, role and named person now: "everyone" would open it wide.
 */
export function startLines(
  definition: Definition,
  gate: Id,
  people: readonly Viewer[],
  at: Circumstances,
): Line[] {
  const { tree } = compile(definition);
  const element = tree.get(gate);
  if (!element || !isDataDoor(element)) return [newLine({ kind: 'everyone' }, 'edit')];
  const lines: Line[] = [];
  const start = new Start(definition, gate, at);
  const signedOut = start.levelOf(SIGNED_OUT, { kind: 'signed-out' });
  const signedIn = start.levelOf(SIGNED_IN, { kind: 'signed-in' });
  const everyone = Math.min(signedOut, signedIn) as Level;
  give(lines, { kind: 'everyone' }, everyone, NONE);
  give(lines, { kind: 'signed-out' }, signedOut, everyone);
  give(lines, { kind: 'signed-in' }, signedIn, everyone);
  const byRole = new Map<Id, Level>();
  for (const role of includedFirst(definition.roles)) {
    const level = start.levelOf(viewerOfRole(role.id), { kind: 'role', role: role.id });
    const included = [...withIncluded(definition, role.includes)].map((id) => byRole.get(id) ?? NONE);
    byRole.set(role.id, level);
    give(lines, { kind: 'role', role: role.id }, level, Math.max(signedIn, ...included) as Level);
  }
  for (const viewer of people) {
    if (viewer.kind !== 'signed-in' || viewer.person === undefined || !start.names(viewer.person)) continue;
    const who: Who = { kind: 'person', person: viewer.person };
    const roles = viewer.assignments.map((one) => one.role);
    const held = [...withIncluded(definition, roles)].map((id) => byRole.get(id) ?? NONE);
    give(lines, who, start.levelOf(viewer, who), Math.max(signedIn, ...held) as Level);
  }
  return lines;
}

/** Adds the line that brings `who` from the level they have by other lines to the one they should have. */
function give(lines: Line[], who: Who, level: Level, have: Level): void {
  if (level === have) return;
  const limits: Readonly<Record<Level, What>> = ['block', 'at-most-see', 'edit'];
  if (level > have) lines.push(newLine(who, level === EDIT ? 'edit' : 'see'));
  else lines.push(newLine(who.kind === 'role' ? { ...who, exactly: true } : who, limits[level]));
}

class Start {
  constructor(
    private readonly definition: Definition,
    private readonly gate: Id,
    private readonly at: Circumstances,
  ) {}

  /** The highest level that a line for this viewer may give without opening more than the screens do. */
  levelOf(viewer: Viewer, who: Who): Level {
    const now = this.rule(this.definition, viewer);
    if (now.see === false) return NONE;
    const withLine = (what: What): Rule => {
      const gates = { ...this.definition.gates, [this.gate]: { lines: [newLine(who, what)] } };
      return this.rule({ ...this.definition, gates }, viewer);
    };
    if (sameJson(now, withLine('see'))) return SEE;
    if (sameJson(now, withLine('edit'))) return EDIT;
    if (sameJson(now.see, withLine('see').see)) return SEE;
    return NONE;
  }

  /** Is the person named in any gate? Others have what their roles have. */
  names(person: Id): boolean {
    return Object.values(this.definition.gates).some((gate) =>
      gate.lines.some(({ who }) => who.kind === 'person' && who.person === person),
    );
  }

  private rule(definition: Definition, viewer: Viewer): Rule {
    const access = compile(definition).access(viewer, this.at);
    return access.rule(access.element(this.gate));
  }
}

/** Roles with those that they include before them. */
function includedFirst(roles: readonly Role[]): Role[] {
  const byId = new Map(roles.map((role) => [role.id, role]));
  const done = new Set<Role>();
  const visit = (role: Role): void => {
    if (done.has(role)) return;
    for (const id of role.includes) {
      const included = byId.get(id);
      if (included) visit(included);
    }
    done.add(role);
  };
  roles.forEach(visit);
  return [...done];
}
