interface FileButtonProps {
  readonly title: string;
  readonly label: string;
  readonly accept: string;
  readonly isForSeveral?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
}

/** Lets files be chosen, by keyboard too. */
export function FileButton({ title, label, accept, isForSeveral = false, onFiles }: FileButtonProps) {
  return (
    <label className="file">
      {title}
      <input
        type="file"
        multiple={isForSeveral}
        accept={accept}
        aria-label={label}
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          // So that the same file can be chosen again after a change.
          target.value = "";
          if (files.length > 0) onFiles(files);
        }}
      />
    </label>
  );
}
