using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>What was worked out for one is there for the next, and bounded.</summary>
public class KeptAnswersTests
{
    [Fact]
    public async Task Those_who_ask_at_once_get_one_working_out_and_those_who_come_later_the_same()
    {
        using var kept = new KeptAnswers();
        var (made, gate) = (0, new TaskCompletionSource());
        async Task<byte[]> Make()
        {
            Interlocked.Increment(ref made);
            await gate.Task;
            return [1, 2, 3];
        }

        var asking = Enumerable.Range(0, 20).Select(_ => kept.Get("a", Make, CancellationToken.None)).ToList();
        gate.SetResult();
        var answers = await Task.WhenAll(asking);

        Assert.All(answers, answer => Assert.Equal([1, 2, 3], answer));
        Assert.Equal([1, 2, 3], await kept.Get("a", Make, CancellationToken.None));
        Assert.Equal(1, made);
        await kept.Get("b", Make, CancellationToken.None);
        Assert.Equal(2, made);
    }

    [Fact]
    public async Task Who_does_not_wait_takes_nothing_from_those_who_do_and_what_failed_is_tried_again()
    {
        using var kept = new KeptAnswers();
        using var impatient = new CancellationTokenSource();
        var gate = new TaskCompletionSource<byte[]>();

        var gone = kept.Get("a", () => gate.Task, impatient.Token);
        var waits = kept.Get("a", () => gate.Task, CancellationToken.None);
        await impatient.CancelAsync();
        gate.SetResult([7]);

        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => gone);
        Assert.Equal([7], await waits);
        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            kept.Get("b", () => throw new InvalidOperationException("The store is busy."), CancellationToken.None)
        );
        Assert.Equal([8], await kept.Get("b", () => Task.FromResult<byte[]>([8]), CancellationToken.None));
    }
}
