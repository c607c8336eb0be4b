using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>What a cell of a spreadsheet holds.</summary>
public enum CellKind
{
    /// <summary>Nothing.</summary>
    Empty,

    /// <summary>Words, whatever they look like.</summary>
    Text,

    /// <summary>A number.</summary>
    Number,

    /// <summary>A date.</summary>
    Date,

    /// <summary>A time of day.</summary>
    Time,

    /// <summary>How long something takes, in hours and minutes.</summary>
    Length,
}

/// <summary>One cell: a value of a kind, so that a spreadsheet program can sort dates and add up hours.</summary>
public readonly record struct Cell
{
    /// <summary>Nothing.</summary>
    public static Cell Empty => default;

    /// <summary>Which of the values it holds.</summary>
    public CellKind Kind { get; private init; }

    /// <summary>For <see cref="CellKind.Text"/>.</summary>
    public string? Text { get; private init; }

    /// <summary>For <see cref="CellKind.Number"/>.</summary>
    public decimal Number { get; private init; }

    /// <summary>For <see cref="CellKind.Date"/>.</summary>
    public LocalDate Date { get; private init; }

    /// <summary>For <see cref="CellKind.Time"/>.</summary>
    public LocalTime Time { get; private init; }

    /// <summary>For <see cref="CellKind.Length"/>.</summary>
    public Duration Length { get; private init; }

    /// <summary>Words; a cell without any is empty.</summary>
    public static Cell Of(string? text) =>
        string.IsNullOrEmpty(text) ? Empty : new Cell { Kind = CellKind.Text, Text = text };

    /// <summary>A number.</summary>
    public static Cell Of(decimal number) => new() { Kind = CellKind.Number, Number = number };

    /// <summary>A date.</summary>
    public static Cell Of(LocalDate date) => new() { Kind = CellKind.Date, Date = date };

    /// <summary>A time of day.</summary>
    public static Cell Of(LocalTime time) => new() { Kind = CellKind.Time, Time = time };

    /// <summary>How long something takes.</summary>
    public static Cell Of(Duration length) => new() { Kind = CellKind.Length, Length = length };
}
