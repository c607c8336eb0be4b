namespace Mortar.Server.Hosting;

/// <summary>A file that is made became larger than it may.</summary>
internal sealed class FileTooLargeException : Exception
{
    public FileTooLargeException()
        : base("The file became larger than it may.") { }
}

/// <summary>Writes to another stream, up to so many bytes.</summary>
internal sealed class BoundedStream(Stream inner, long most) : Stream
{
    private long written;

    public override bool CanRead => false;

    public override bool CanSeek => false;

    public override bool CanWrite => true;

    public override long Length => throw new NotSupportedException();

    public override long Position
    {
        get => written;
        set => throw new NotSupportedException();
    }

    public override void Flush() => inner.Flush();

    public override Task FlushAsync(CancellationToken cancellationToken) => inner.FlushAsync(cancellationToken);

    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    public override void Write(ReadOnlySpan<byte> buffer)
    {
        Count(buffer.Length);
        inner.Write(buffer);
    }

    public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        WriteAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default)
    {
        Count(buffer.Length);
        return inner.WriteAsync(buffer, cancellationToken);
    }

    private void Count(int bytes)
    {
        written += bytes;
        if (written > most)
        {
            throw new FileTooLargeException();
        }
    }
}
