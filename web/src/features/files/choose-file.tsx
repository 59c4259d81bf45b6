import { useRef, useState } from "react";
import { useDrop } from "@/shell/dropped-file";
import { Button } from "@/ui/button";
import { t } from "@/words/files";

interface Props {
  onFile: (file: File) => void;
  isHeld: boolean;
}

const KINDS = ".dxf,.csv,.json,.txt,.ifc,.zip";

/** A file chosen, dropped or pasted; or text, typed or pasted. What is typed stays until it is read. */
export function ChooseFile({ onFile, isHeld }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const { isOver, target } = useDrop(onFile);
  return (
    <section
      aria-label={t("import.choose")}
      className="mt-4 grid gap-6 lg:grid-cols-2"
      onPaste={(event) => {
        const file = event.clipboardData.files[0];
        if (file) onFile(file);
      }}
    >
      <div
        {...target}
        className={`flex min-h-64 flex-col items-center justify-center gap-4 rounded-lg border-2 border-dashed p-6 text-center ${isOver ? "border-accent bg-tint" : "border-line bg-paper"}`}
      >
        <p className="text-lg">{t("import.drop")}</p>
        <Button
          look="main"
          className="min-h-12 text-lg!"
          disabled={isHeld}
          onClick={() => input.current?.click()}
        >
          {t("import.choose")}
        </Button>
        <input
          ref={input}
          type="file"
          accept={KINDS}
          hidden
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) onFile(file);
          }}
        />
        <p className="max-w-96 text-[15px] text-soft">{t("import.kinds")}</p>
      </div>
      <div className="flex flex-col gap-2">
        <label className="flex grow flex-col gap-1">
          <span className="font-semibold">{t("import.paste")}</span>
          <textarea
            value={text}
            onChange={(event) => setText(event.target.value)}
            rows={8}
            spellCheck={false}
            placeholder={t("import.paste.such_as")}
            className="tape min-h-52 grow rounded-md border border-line bg-paper p-3"
          />
        </label>
        <Button
          className="min-h-11 self-start"
          disabled={isHeld || !text.trim()}
          onClick={() => onFile(new File([text], t("import.pasted")))}
        >
          {t("import.read_text")}
        </Button>
      </div>
    </section>
  );
}
