using System.Net;
using System.Runtime.InteropServices;
using System.Runtime.Versioning;
using Microsoft.AspNetCore.HttpOverrides;
using Mortar.Data.Store;
using Mortar.Server.Hosting.Health;

namespace Mortar.Server.Hosting;

/// <summary>How it stands before the internet: whom it believes, what it lets others keep, and to whom its files belong.</summary>
internal static class InFront
{
    /// <summary>Believes of named web servers where a request comes from, so that limits count people and not the server in front.</summary>
    public static void UseProxies(this WebApplication app, MortarOptions options)
    {
        if (options.Proxies.Length > 0)
        {
            var forwarded = new ForwardedHeadersOptions { ForwardedHeaders = ForwardedHeaders.XForwardedFor };
            forwarded.KnownProxies.Clear();
            forwarded.KnownIPNetworks.Clear();
            foreach (
                var one in options.Proxies.Split(
                    ',',
                    StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
                )
            )
            {
                if (one.Contains('/', StringComparison.Ordinal))
                {
                    forwarded.KnownIPNetworks.Add(System.Net.IPNetwork.Parse(one));
                }
                else
                {
                    forwarded.KnownProxies.Add(IPAddress.Parse(one));
                }
            }

            app.UseForwardedHeaders(forwarded);
        }

        if (options.IsSecure)
        {
            app.Use(
                (context, next) =>
                {
                    // TLS ends at the web server in front; what people see is https.
                    context.Request.Scheme = "https";
                    return next(context);
                }
            );
        }
    }

    /// <summary>Nothing that is for one person is kept by what lies between.</summary>
    public static void UseNoStore(this WebApplication app) =>
        app.Use(
            (context, next) =>
            {
                if (context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
                {
                    context.Response.OnStarting(
                        state =>
                        {
                            var headers = ((HttpContext)state).Response.Headers;
                            if (headers.CacheControl.Count == 0)
                            {
                                headers.CacheControl = "no-store";
                            }

                            return Task.CompletedTask;
                        },
                        context
                    );
                }

                return next(context);
            }
        );

    /// <summary>The live line is opened by Mortar's own pages only: a page from elsewhere would listen with the cookie of whoever looks at it.</summary>
    public static void UseOwnOriginForLive(this WebApplication app, MortarOptions options) =>
        app.Use(
            (context, next) =>
            {
                var origin = context.Request.Headers.Origin.ToString();
                if (
                    origin.Length > 0
                    && context.Request.Path.StartsWithSegments("/live", StringComparison.Ordinal)
                    && !IsOwn(origin, context.Request, options)
                )
                {
                    return Problems
                        .Of(
                            StatusCodes.Status403Forbidden,
                            "not-from-here",
                            "This can be asked by Mortar's own pages only."
                        )
                        .ExecuteAsync(context);
                }

                return next(context);
            }
        );

    /// <summary>Whether a page of Mortar's own asks.</summary>
    public static bool IsOwn(string origin, HttpRequest request, MortarOptions options) =>
        Uri.TryCreate(origin, UriKind.Absolute, out var from)
        && (
            from.Authority == request.Host.Value
            || (Uri.TryCreate(options.PublicUrl, UriKind.Absolute, out var own) && from.Authority == own.Authority)
        );

    /// <summary>What Mortar keeps in its folder.</summary>
    private static readonly string[] Own =
    [
        StoreSetup.FileName,
        $"{StoreSetup.FileName}-wal",
        $"{StoreSetup.FileName}-shm",
        DataFolders.Keys,
        DataFolders.PostRoom,
        Backup.Folder,
        "imports",
        Aside.Folder,
        FilesToGive.Folder,
        StoreLock.FileName,
        StoreStart.CopyName,
        $"{StoreStart.CopyName}.making",
        DiskCheck.ProbeName,
        StoreStart.UnfinishedDemo,
    ];

    /// <summary>What is written from here on is its owner's alone.</summary>
    public static void KeepNewToOwner()
    {
        if (!OperatingSystem.IsWindows())
        {
            _ = Umask(Convert.ToUInt32("077", 8));
        }
    }

    /// <summary>
    /// What is written from here on is its owner's alone, and so is what Mortar has written before. The folder itself is
    /// closed where nothing but that lies in it: whatever else somebody keeps there is not Mortar's to touch.
    /// </summary>
    public static void KeepToOwner(string data)
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        KeepNewToOwner();
        if (Directory.EnumerateFileSystemEntries(data).All(path => Own.Contains(Path.GetFileName(path))))
        {
            Close(data);
        }

        foreach (var path in Own.Select(name => Path.Combine(data, name)).Where(Path.Exists))
        {
            Close(path);
            if (Directory.Exists(path))
            {
                foreach (var inside in Directory.EnumerateFiles(path))
                {
                    Close(inside);
                }
            }
        }
    }

    [UnsupportedOSPlatform("windows")]
    private static void Close(string path) =>
        File.SetUnixFileMode(
            path,
            Directory.Exists(path)
                ? UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute
                : UnixFileMode.UserRead | UnixFileMode.UserWrite
        );

    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern uint Umask(uint mask);
}
