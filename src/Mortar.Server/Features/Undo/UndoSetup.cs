using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Words;
using Mortar.Data.Undo;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Undo;

/// <summary>POST /api/changes/{set}/undo: takes back everything one act of one's own changed.</summary>
internal static class UndoSetup
{
    /// <param name="Returned">How many things went back to their state before.</param>
    internal sealed record Body(int Returned);

    public static void AddUndo(this IServiceCollection services) => services.AddScoped<UndoCommands>();

    public static void MapUndo(this RouteGroupBuilder api) =>
        api.MapPost("/changes/{set:guid}/undo", Undo).WithName("UndoChange");

    private static Task<Results<Ok<Body>, ProblemHttpResult>> Undo(
        ChangeSetId set,
        Acting acting,
        UndoCommands undo,
        CancellationToken cancellationToken
    ) => undo.Undo(acting.Act, set, cancellationToken).Answer(returned => Task.FromResult(new Body(returned)));
}
