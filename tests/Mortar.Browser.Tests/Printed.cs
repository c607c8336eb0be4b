using System.Text;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Mortar.Browser.Tests;

/// <summary>What came out of the printer, read by PdfPig 0.1: its words where they lie, and the ink they are in.</summary>
internal sealed class Printed(byte[] bytes)
{
    private readonly PdfDocument document = PdfDocument.Open(bytes);

    public IReadOnlyList<Page> Pages => field ??= [.. document.GetPages()];

    /// <summary>All that is written, in the order it was drawn, without spaces and hyphens: lines end where there is no room.</summary>
    public string Text => field ??= string.Concat(Pages.Select(TextOf));

    /// <summary>The widths and heights of the pages in millimetres.</summary>
    public IEnumerable<(int Wide, int High)> Sizes =>
        Pages.Select(page => ((int)Math.Round(page.Width / 72 * 25.4), (int)Math.Round(page.Height / 72 * 25.4)));

    /// <summary>How light the lightest ink of words is, from 0 for black to 1 for white.</summary>
    public double LightestWords =>
        Pages.SelectMany(page => page.Letters).Max(letter => Light(letter.Color.ToRGBValues()));

    /// <summary>Whether all ink is grey.</summary>
    public bool IsGrey =>
        Pages
            .SelectMany(page => page.Letters.Select(letter => letter.Color))
            .Concat(
                Pages
                    .SelectMany(page => page.Paths)
                    .SelectMany(path => new[] { path.StrokeColor, path.FillColor })
                    .OfType<UglyToad.PdfPig.Graphics.Colors.IColor>()
            )
            .Select(color => color.ToRGBValues())
            .All(color => Math.Abs(color.r - color.g) < 0.01 && Math.Abs(color.g - color.b) < 0.01);

    /// <summary>How many lines are drawn, marks of calendars among them.</summary>
    public int Strokes => Pages.Sum(page => page.Paths.Count(path => path.IsStroked));

    /// <summary>Whether every letter lies on its paper, at a hand's breadth from no edge.</summary>
    public bool IsOnPaper(double edge) =>
        Pages.All(page =>
            page.Letters.All(letter =>
                letter.BoundingBox.Left >= edge
                && letter.BoundingBox.Right <= page.Width - edge
                && letter.BoundingBox.Bottom >= edge
                && letter.BoundingBox.Top <= page.Height - edge
            )
        );

    /// <summary>The size of the smallest type, in points.</summary>
    public double SmallestType => Pages.SelectMany(page => page.Letters).Min(letter => letter.PointSize);

    /// <summary>Whether words stand in it.</summary>
    public bool Has(string words) => Text.Contains(Squeezed(words), StringComparison.Ordinal);

    /// <summary>How often words stand in it.</summary>
    public int Count(string words) => Text.Split(Squeezed(words)).Length - 1;

    /// <summary>The same of one page.</summary>
    public static string TextOf(Page page) => Squeezed(string.Concat(page.Letters.Select(letter => letter.Value)));

    public static string Squeezed(string words) =>
        string.Concat(
            words
                .Normalize(NormalizationForm.FormKC)
                .Where(letter => !char.IsWhiteSpace(letter) && letter is not ('-' or '\u2010' or '\u00AD'))
        );

    /// <summary>Whether a letter is nearer to black than to white.</summary>
    public static bool IsDark(Letter letter) => Light(letter.Color.ToRGBValues()) < 0.5;

    public void Save(string file) => File.WriteAllBytes(file, bytes);

    private static double Light((double r, double g, double b) color) =>
        (0.2126 * color.r) + (0.7152 * color.g) + (0.0722 * color.b);
}
