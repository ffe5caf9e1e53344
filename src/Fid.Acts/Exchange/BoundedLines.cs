namespace Fid.Acts.Exchange;

/// <summary>Passes text on, and refuses it where no line ends for so long that it can be no row of a sheet.</summary>
internal sealed class BoundedLines(TextReader inner, CancellationToken cancellation) : TextReader
{
    private const int LongestLine = 2_000_000;

    private int _inLine;

    public override int Read(char[] buffer, int index, int count)
    {
        cancellation.ThrowIfCancellationRequested();
        var read = inner.Read(buffer, index, count);
        foreach (var c in buffer.AsSpan(index, read))
            if (c is '\n' or '\r')
                _inLine = 0;
            else if (++_inLine > LongestLine)
                throw new SheetException("A line is too long to be a row of a sheet. Choose a .csv, .tsv or .xlsx file.");
        return read;
    }

    public override int Read(Span<char> buffer)
    {
        var copy = new char[buffer.Length];
        var read = Read(copy, 0, copy.Length);
        copy.AsSpan(0, read).CopyTo(buffer);
        return read;
    }

    public override int Read() => inner.Read();

    public override int Peek() => inner.Peek();

    protected override void Dispose(bool disposing)
    {
        if (disposing)
            inner.Dispose();
        base.Dispose(disposing);
    }
}
