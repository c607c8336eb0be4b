using Mortar.Server.Hosting;
using Xunit;

namespace Mortar.Server.Tests;

public sealed class FilesToGiveTests : IDisposable
{
    private readonly DirectoryInfo data = Directory.CreateTempSubdirectory("mortar-giving-");

    private FilesToGive Files => new(new MortarOptions { Data = data.FullName });

    private string[] Lying => Directory.GetFiles(Path.Combine(data.FullName, "giving"));

    public void Dispose() => data.Delete(recursive: true);

    [Fact]
    public async Task A_file_is_whole_before_it_is_given_and_goes_with_whoever_closes_it()
    {
        await using (var file = await Files.Make(stream => stream.WriteAsync(new byte[] { 1, 2, 3 }).AsTask()))
        {
            Assert.Equal((0, 3), (file.Position, file.Length));
            Assert.Single(Lying);
        }

        Assert.Empty(Lying);
    }

    [Fact]
    public async Task One_that_fails_or_grows_beyond_its_bound_leaves_nothing()
    {
        await Assert.ThrowsAsync<FileTooLargeException>(() =>
            Files.Make(async stream =>
            {
                var block = new byte[16 << 20];
                for (var written = 0L; written <= FilesToGive.MostBytes; written += block.Length)
                {
                    await stream.WriteAsync(block);
                }
            })
        );
        await Assert.ThrowsAsync<InvalidDataException>(() =>
            Files.Make(_ => throw new InvalidDataException("The line was cut."))
        );

        Assert.Empty(Lying);
    }

    [Fact]
    public void What_was_being_made_when_it_ended_goes_with_the_next_start()
    {
        File.WriteAllText(Files.Place(), "half");
        Assert.Single(Lying);

        _ = Files;

        Assert.Empty(Lying);
    }

    [Theory]
    [InlineData("Studio team", "Studio-team.zip")]
    [InlineData("../../etc/passwd", "etc-passwd.zip")]
    [InlineData("Töpfern & Glasur", "Töpfern-Glasur.zip")]
    [InlineData("🏺", "calendar.zip")]
    [InlineData("a\"b\r\nc", "a-b-c.zip")]
    public void A_name_holds_nothing_that_a_file_system_minds(string words, string name) =>
        Assert.Equal(name, FilesToGive.Name(words, ".zip"));
}
