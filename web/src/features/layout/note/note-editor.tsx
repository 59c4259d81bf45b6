import { type Diagnostic, setDiagnostics } from "@codemirror/lint";
import { Annotation, EditorState } from "@codemirror/state";
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import { type RefObject, useEffect, useRef } from "react";
import { smallestChange } from "@/features/layout/steps/smallest-change";

export interface NoteMark {
  line: number;
  /** The words at fault; none: the whole line. */
  words: string;
  says: string;
  severity: "stop" | "caution" | "note";
}

/** A text set from outside, and how often something had been typed when it was asked for. */
export interface Written {
  text: string;
  typed: number;
}

interface Props {
  written: Written;
  /** How often something has been typed: what was written before that is not put over it. */
  typed: RefObject<number>;
  marks: NoteMark[];
  readOnly: boolean;
  onChange: (text: string) => void;
  onUndo: () => void;
  onRedo: () => void;
}

const SEVERITIES = { stop: "error", caution: "warning", note: "info" } as const;
const fromOutside = Annotation.define<boolean>();

const look = EditorView.theme({
  "&": { height: "100%", fontSize: "16px", backgroundColor: "transparent", color: "var(--ink)" },
  ".cm-content": { fontFamily: "var(--font-sans)", caretColor: "var(--accent)", padding: "8px 0" },
  ".cm-line": { padding: "3px 8px 3px 4px" },
  ".cm-lineNumbers .cm-gutterElement": { padding: "3px 6px 0 4px" },
  ".cm-gutters": { backgroundColor: "transparent", color: "var(--soft)", border: "none" },
  ".cm-activeLine, .cm-activeLineGutter": {
    backgroundColor: "color-mix(in srgb, var(--tint) 50%, transparent)",
  },
  "&.cm-focused .cm-selectionBackground, .cm-selectionBackground": { backgroundColor: "var(--tint)" },
  ".cm-cursor": { borderLeftColor: "var(--accent)", borderLeftWidth: "2px" },
  ".cm-tooltip": { backgroundColor: "var(--paper)", border: "1px solid var(--ink)", fontSize: "16px" },
  ".cm-lintRange-error": { backgroundImage: "none", borderBottom: "3px double var(--stop)" },
  ".cm-lintRange-warning": { backgroundImage: "none", borderBottom: "2px dashed var(--caution)" },
  ".cm-lintRange-info": { backgroundImage: "none" },
});

/** A text editor that follows what is written from outside, without losing the cursor or anything typed meanwhile.
 * Undo is the session's own. */
export function NoteEditor(props: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef(props);
  latest.current = props;
  const { written, typed, marks } = props;

  useEffect(() => {
    if (!host.current) return;
    const run = (act: "onUndo" | "onRedo") => () => {
      latest.current[act]();
      return true;
    };
    const keys = [
      { key: "Mod-z", run: run("onUndo") },
      { key: "Mod-Shift-z", run: run("onRedo") },
    ];
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: latest.current.written.text,
        extensions: [
          lineNumbers(),
          drawSelection(),
          highlightActiveLine(),
          keymap.of(keys),
          EditorView.lineWrapping,
          EditorState.readOnly.of(latest.current.readOnly),
          EditorView.contentAttributes.of({ "aria-label": "The run as a field note", spellcheck: "false" }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged && !update.transactions.some((one) => one.annotation(fromOutside)))
              latest.current.onChange(update.state.doc.toString());
          }),
          look,
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, []);

  useEffect(() => {
    const editor = view.current;
    if (!editor || written.typed !== typed.current) return;
    const change = smallestChange(editor.state.doc.toString(), written.text);
    if (change) editor.dispatch({ changes: change, annotations: fromOutside.of(true) });
  }, [written, typed]);

  useEffect(() => {
    const editor = view.current;
    editor?.dispatch(
      setDiagnostics(
        editor.state,
        marks.flatMap((mark) => diagnostic(editor.state, mark)),
      ),
    );
  }, [marks]);

  return <div ref={host} className="tape min-h-64 flex-1 overflow-auto" />;
}

function diagnostic(state: EditorState, mark: NoteMark): Diagnostic[] {
  if (mark.line < 1 || mark.line > state.doc.lines) return [];
  const line = state.doc.line(mark.line);
  const at = mark.words ? line.text.indexOf(mark.words) : -1;
  const from = at < 0 ? line.from : line.from + at;
  const to = at < 0 ? line.to : from + mark.words.length;
  return [{ from, to, severity: SEVERITIES[mark.severity], message: mark.says }];
}
