using QRCoder;

namespace Mortar.Server.Wire;

/// <summary>An address as a picture to be read by a camera: a QR code (ISO/IEC 18004), as SVG.</summary>
internal static class QrPicture
{
    /// <summary>One that survives a fold and a splash: a quarter of it may be unreadable.</summary>
    public static string Of(string url)
    {
        using var code = QRCodeGenerator.GenerateQrCode(url, QRCodeGenerator.ECCLevel.Q);
        using var picture = new SvgQRCode(code);
        return picture.GetGraphic(4, "#000000", "#ffffff", drawQuietZones: true, SvgQRCode.SizingMode.ViewBoxAttribute);
    }
}
