import { type DragEvent, useState } from "react";
import { useNavigate } from "react-router";

let handed: File | null = null;

/** Lays a file by for the page that reads it in. */
export function handOver(file: File) {
  handed = file;
}

/** The file that was laid by; it is there once. */
export function handedOver(): File | null {
  const file = handed;
  handed = null;
  return file;
}

const hasFiles = (event: DragEvent) => event.dataTransfer.types.includes("Files");

/** What an element needs so that a file can be dropped on it, and whether one is held over it. */
export function useDrop(onFile: (file: File) => void) {
  const [isOver, setIsOver] = useState(false);
  return {
    isOver,
    target: {
      onDragOver: (event: DragEvent) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        setIsOver(true);
      },
      onDragLeave: () => setIsOver(false),
      onDrop: (event: DragEvent) => {
        const file = event.dataTransfer.files[0];
        if (!file) return;
        event.preventDefault();
        setIsOver(false);
        onFile(file);
      },
    },
  };
}

/** A file that is dropped here is read in on the page for that. */
export function useDropToImport() {
  const navigate = useNavigate();
  return useDrop((file) => {
    handOver(file);
    navigate("/import");
  });
}
